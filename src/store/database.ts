import Dexie, { type Table, type Transaction } from 'dexie'
import type { SoundFile } from '@/core/model/bed'
import type { Brand } from '@/core/model/brand'
import type { FontFile } from '@/core/model/fontFile'
import type { Highlight } from '@/core/model/highlight'
import type {
  BrandId,
  DraftRunId,
  FontFileId,
  HighlightId,
  ImageFileId,
  LayoutId,
  OutletId,
  PostId,
  RecipeId,
  RecordingId,
  RenderId,
  RenderPresetId,
  SetupId,
  SoundFileId,
  VersionId,
} from '@/core/model/ids'
import type { ImageFile } from '@/core/model/imageFile'
import type { Layout } from '@/core/model/layout'
import { startingOutlets, type Outlet } from '@/core/model/outlet'
import type { Post } from '@/core/model/post'
import type { Recipe } from '@/core/model/recipe'
import type { Recording } from '@/core/model/recording'
import type { Render } from '@/core/model/render'
import type { RenderPreset } from '@/core/model/renderPreset'
import type { Setup } from '@/core/model/setup'
import type { Spotting } from '@/core/model/spotting'
import type { Version } from '@/core/model/version'
import type { AnalysisPart, AnalysisPartKey } from './analyses'
import type { DraftRun } from './draftRuns'
import type { PreviewCopyKey, StoredPreviewCopy } from './previewCopies'
import type { Resemblance } from './resemblances'
import type { UndoStep } from './undo'
import type { WatchedFile } from './watched'

/** Whose bytes a stored file holds. */
export type FileOwner = RecordingId | SoundFileId | ImageFileId | FontFileId

/**
 * A file's bytes: a copy of its own, or a handle to the person's file, whose permission the browser may have taken
 * back.
 */
export type StoredFile =
  { owner: FileOwner; kind: 'kept'; blob: Blob } | { owner: FileOwner; kind: 'linked'; handle: FileSystemFileHandle }

/** Small pictures made once and shown often. `owner` is a recording's or a highlight's id. */
export interface StoredPictures {
  owner: string
  /** The owner's `updatedAt` when they were made; another value means they are out of date. */
  madeFor: string
  pictures: Blob[]
}

/** The file of captions that lay beside a recording when it was added. */
export interface StoredCaptionText {
  recordingId: RecordingId
  fileName: string
  blob: Blob
}

/** A folder of the person's own with a model in it: a link to it, or a copy of the files that are needed, by path. */
export interface StoredFolder {
  id: string
  name: string
  /** Of those the model has; null for a model of one language. */
  language: string | null
  from: FolderSource
}

export type FolderSource =
  { kind: 'linked'; handle: FileSystemDirectoryHandle } | { kind: 'kept'; files: ReadonlyMap<string, Blob> }

export interface StoredUndo {
  /** The highlight or recording whose work it is. */
  owner: HighlightId | RecordingId
  steps: UndoStep[]
  /** How many of `steps` are done; the rest can be redone. */
  position: number
  /** Setups and layouts in the order in which they stand in the edit. */
  setupIds?: SetupId[]
  layoutIds?: LayoutId[]
  /** Records that steps may refer to, whether or not the present state does. */
  recordingIds?: RecordingId[]
  soundFileIds?: SoundFileId[]
  imageFileIds?: ImageFileId[]
}

/**
 * Everything Brimble keeps in this browser. Tables hold records as core/model describes them; versions only ever go
 * up.
 */
export class Database extends Dexie {
  declare recordings: Table<Recording, RecordingId>
  declare files: Table<StoredFile, FileOwner>
  declare pictures: Table<StoredPictures, string>
  declare setups: Table<Setup, SetupId>
  declare layouts: Table<Layout, LayoutId>
  declare highlights: Table<Highlight, HighlightId>
  declare renders: Table<Render, RenderId>
  declare undo: Table<StoredUndo, HighlightId | RecordingId>
  declare soundFiles: Table<SoundFile, SoundFileId>
  declare versions: Table<Version, VersionId>
  declare spottings: Table<Spotting, RecordingId>
  declare imageFiles: Table<ImageFile, ImageFileId>
  declare fontFiles: Table<FontFile, FontFileId>
  declare captionTexts: Table<StoredCaptionText, RecordingId>
  declare brands: Table<Brand, BrandId>
  declare outlets: Table<Outlet, OutletId>
  declare recipes: Table<Recipe, RecipeId>
  declare folders: Table<StoredFolder, string>
  declare renderPresets: Table<RenderPreset, RenderPresetId>
  declare posts: Table<Post, PostId>
  declare settings: Table<{ key: string; value: unknown }, string>
  declare watched: Table<WatchedFile, string>
  declare resemblances: Table<Resemblance, RecordingId>
  declare draftRuns: Table<DraftRun, DraftRunId>
  declare previewCopies: Table<StoredPreviewCopy, PreviewCopyKey>
  declare analyses: Table<AnalysisPart, AnalysisPartKey>

  constructor(name = 'brimble') {
    super(name)
    this.version(1).stores({
      recordings: 'id, recordedAt',
      files: 'owner',
      pictures: 'owner',
      setups: 'id, ownedBy',
      layouts: 'id, ownedBy',
      highlights: 'id, createdAt',
      renders: 'id, highlightId, createdAt, state.kind',
      undo: 'owner',
      soundFiles: 'id',
      versions: 'id, highlightId',
      spottings: 'id',
      analyses: '[recordingId+kind+index], recordingId',
    })
    const outletsToBegin = (tx: Transaction) => tx.table('outlets').bulkAdd(startingOutlets(new Date().toISOString()))
    this.version(2)
      .stores({ imageFiles: 'id', brands: 'id', outlets: 'id', recipes: 'id, setupId' })
      .upgrade(outletsToBegin)
    this.version(3).stores({ fontFiles: 'id', captionTexts: 'recordingId' })
    this.version(4).stores({ folders: 'id' })
    this.version(5).stores({ renderPresets: 'id', settings: 'key' })
    this.version(6).stores({ posts: 'id, dueAt, renderId' })
    this.version(7).stores({ watched: 'name' })
    this.version(8).stores({ resemblances: 'recordingId' })
    this.version(9).stores({ draftRuns: 'id, createdAt' })
    this.version(10).stores({ previewCopies: '[recordingId+index], recordingId, usedAt' })
    this.on('populate', outletsToBegin)
  }
}

let shared: Database | null = null

/** The one database of this browser profile. */
export function database(): Database {
  shared ??= new Database()
  return shared
}

/** Whether an error means that the browser's storage is full; Dexie wraps the browser's own error in one of its own. */
export function isStorageFull(error: unknown): boolean {
  const names = [error, (error as { inner?: unknown } | null)?.inner].map((e) =>
    e instanceof Error || e instanceof DOMException ? e.name : '',
  )
  return names.includes('QuotaExceededError')
}
