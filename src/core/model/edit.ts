import { z } from 'zod'
import { fontFile, type FontFile } from './fontFile'
import { soundFile, type SoundFile } from './bed'
import { highlight } from './highlight'
import type { LayoutId, RecordingId, SetupId } from './ids'
import { imageFile, type ImageFile } from './imageFile'
import { layout, picturesOfLayouts, type Layout } from './layout'
import { recordingsIn, type Passage } from './passage'
import { picturesOfMarks } from './pictureMark'
import { recording, type Recording } from './recording'
import { setup, type Setup } from './setup'

/**
 * Everything that decides how a highlight looks and sounds: the highlight and every record it refers to. What the
 * Bench works on, what a render keeps as "the exact edit it was made from", and all that the composer needs.
 */
export const edit = z.object({
  highlight,
  setups: z.array(setup),
  layouts: z.array(layout),
  recordings: z.array(recording),
  /** Those that the highlight's beds play. */
  soundFiles: z.array(soundFile).default([]),
  /** Those that its layouts and marks show. */
  imageFiles: z.array(imageFile).default([]),
  /** Fonts that came along, whether its words are set in them or not. */
  fontFiles: z.array(fontFile).default([]),
})

export type Edit = z.infer<typeof edit>

/** The recordings that its passages play; an edit may hold others, for undo. */
export function usedRecordings({ highlight, recordings }: Edit): Recording[] {
  return recordings.filter((r) => highlight.passages.some((p) => recordingsIn(p).includes(r.id)))
}

/** The sound files that its beds play. */
export function usedSoundFiles({ highlight, soundFiles }: Edit): SoundFile[] {
  return soundFiles.filter((f) => highlight.beds.some((b) => b.soundFileId === f.id))
}

/** The pictures that its marks and the layouts of its passages show. */
export function usedImageFiles({ highlight, layouts, imageFiles }: Edit): ImageFile[] {
  const used = new Set([
    ...picturesOfMarks(highlight.marks),
    ...picturesOfLayouts(layouts.filter((l) => highlight.passages.some((p) => p.layoutId === l.id))),
  ])
  return imageFiles.filter((f) => used.has(f.id))
}

/** The fonts that its words and marks are set in, of those that came along. */
export function usedFontFiles({ highlight, fontFiles }: Edit): FontFile[] {
  const { captions, titles } = highlight.words
  const families = new Set(
    [captions, ...titles, ...highlight.marks].flatMap((made) => ('style' in made ? [made.style.font] : [])),
  )
  return fontFiles.filter((f) => families.has(f.name))
}

/** The files besides recordings that an edit cannot do without. */
export function usedFiles(edit: Edit): (SoundFile | ImageFile | FontFile)[] {
  return [...usedSoundFiles(edit), ...usedImageFiles(edit), ...usedFontFiles(edit)]
}

function find<T extends { id: string }>(records: readonly T[], id: string, what: string): T {
  const record = records.find((r) => r.id === id)
  if (!record) throw new RangeError(`${what}: nothing with the id ${id} in this edit`)
  return record
}

export const setupOf = (edit: Edit, id: SetupId): Setup => find(edit.setups, id, 'setups')
export const layoutOf = (edit: Edit, id: LayoutId): Layout => find(edit.layouts, id, 'layouts')
export const recordingOf = (edit: Pick<Edit, 'recordings'>, id: RecordingId): Recording =>
  find(edit.recordings, id, 'recordings')
/** The recording that its first passage plays: what rates and settings go by; null where it is not known. */
export function firstRecordingOf({ highlight, recordings }: Pick<Edit, 'highlight' | 'recordings'>): Recording | null {
  return recordings.find((r) => r.id === highlight.passages[0]?.recordingId) ?? null
}

export const passageOf = (edit: Edit, id: Passage['id']): Passage => find(edit.highlight.passages, id, 'passages')
