import { z } from 'zod'
import { settingsOfPreset } from '../interchange/presetFile'
import { usedFiles, usedRecordings, type Edit } from '../model/edit'
import { outputChoice, type OutputChoice } from '../model/outputChoice'
import { renderSettings, type RenderSettings } from '../model/render'
import { shape, STANDARD_SHAPES, type Shape } from '../model/shape'
import { backEnd } from './backEnd'
import { captionsAsShown, wantedOf } from './renderSettings'

/** Some of a choice: only what was given counts, nothing is filled in. */
const outputWish = z.record(z.string(), z.unknown()).transform((given, context): Partial<OutputChoice> => {
  const parsed = z.strictObject(outputChoice.partial().shape).safeParse(given)
  if (!parsed.success) {
    for (const { path, message } of parsed.error.issues) context.addIssue({ code: 'custom', path, message })
    return z.NEVER
  }
  return Object.fromEntries(Object.entries(parsed.data).filter(([key]) => key in given))
})

/** What is to be made of every highlight of a call without a person. */
export const unattendedWish = z.strictObject({
  /** Ids of shapes; null: those of the highlight. */
  shapes: z.array(z.string().min(1).max(80)).min(1).max(20).nullable().default(null),
  /** What is to be otherwise than the highlight says. */
  output: z.preprocess(settingsOfPreset, outputWish).default({}),
  /** Instead of both: exactly these files. */
  files: z
    .array(z.object({ shape, settings: renderSettings }))
    .min(1)
    .max(20)
    .nullable()
    .default(null),
  /** What draws the pictures; null: what is quicker on this machine. */
  backEnd: backEnd.nullable().default(null),
})
export type UnattendedWish = z.infer<typeof unattendedWish>

/** A file that a highlight cannot be rendered without. */
export interface NeededFile {
  id: string
  fileName: string
  sizeBytes: number
}

/** Every file that an edit uses. */
export function neededFiles(edit: Edit): NeededFile[] {
  return [...usedRecordings(edit), ...usedFiles(edit)].map(({ id, fileName, sizeBytes }) => ({
    id,
    fileName,
    sizeBytes,
  }))
}

export type WishRead =
  { ok: true; wanted: { shape: Shape; settings: RenderSettings }[] } | { ok: false; unknownShape: string }

/** What a wish comes to for an edit. Shapes may be those of the highlight and the standard ones. */
export function wishedFiles(edit: Edit, { shapes, output, files }: UnattendedWish): WishRead {
  if (files) return { ok: true, wanted: files }
  const { highlight } = edit
  const known = [...highlight.shapes, ...STANDARD_SHAPES]
  const chosen: Shape[] = []
  for (const id of shapes ?? highlight.shapes.map((s) => s.id)) {
    const shape = known.find((s) => s.id === id)
    if (!shape) return { ok: false, unknownShape: id }
    if (!chosen.includes(shape)) chosen.push(shape)
  }
  return { ok: true, wanted: wantedOf(edit, chosen, captionsAsShown(changed(highlight.output, output), highlight)) }
}

/** A wish for a quality is one against the bitrate or size that stands. */
function changed(own: OutputChoice, wish: UnattendedWish['output']): OutputChoice {
  return { ...own, ...(wish.quality !== undefined && { videoBitrate: null, mostBytes: null }), ...wish }
}
