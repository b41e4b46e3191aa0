import type { StreamTargetChunk } from 'mediabunny'
import type { Edit } from '@/core/model/edit'
import type { RenderId } from '@/core/model/ids'
import type { FinishedFile, RenderFailure, RenderSettings } from '@/core/model/render'
import type { Shape } from '@/core/model/shape'
import type { BackEnd } from '@/core/output/backEnd'
import type { SpeechOf } from '@/core/sound/ducking'

/** One file to be made. */
export interface WantedFile {
  id: RenderId
  shape: Shape
  settings: RenderSettings
}

/**
 * Files of one edit that are made in one go: their settings show the same moments and sound alike; see
 * core/output/renderGroups.
 */
export interface RenderJob {
  edit: Edit
  backEnd: BackEnd
  wanted: readonly WantedFile[]
  /** The bytes of every recording and sound file the edit uses, by id. */
  files: ReadonlyMap<string, Blob>
  /** Where its recordings hold speech; beds are lowered there. */
  speechOf: SpeechOf
}

export interface RenderProgress {
  frame: number
  frames: number
  /** Frames per second of wall time, over the whole job so far; each is drawn once for every file. */
  rate: number
  secondsLeft: number
}

export type RenderedFile = Omit<FinishedFile, 'fileName' | 'sizeBytes' | 'extras' | 'savedAs'>
export type RenderOutcome =
  | { ok: true; file: RenderedFile; extras: { kind: 'poster' | 'loop'; blob: Blob }[] }
  | { ok: false; failure: RenderFailure }

/** Where files go, and what is told and asked on the way. */
export interface RenderHost {
  writableOf: (id: RenderId) => WritableStream<StreamTargetChunk>
  onProgress: (progress: RenderProgress) => void
  /** Resolves when the job may go on: at once unless it is held. */
  mayGoOn: () => Promise<void>
  /** Whether a file is not wanted any more; the others go on. */
  isDropped: (id: RenderId) => boolean
  signal: AbortSignal
}
