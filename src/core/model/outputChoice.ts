import { z } from 'zod'
import { frameRate } from './record'

/** What becomes of captions: on the picture, in a file beside it, both, or neither. */
export const captionsIn = z.enum(['picture', 'beside', 'both', 'neither'])
export type CaptionsIn = z.infer<typeof captionsIn>

/** How a highlight is rendered, whatever its shapes and recordings: what core/output/renderSettings turns into numbers. */
export const outputChoice = z.object({
  /** Null: as recorded. */
  frameRate: frameRate.nullable(),
  quality: z.enum(['small', 'standard', 'high']),
  captions: captionsIn,
  /** Files are kept under so many bytes by a lower bitrate; null: as the quality comes to. */
  mostBytes: z.number().int().positive().nullable().default(null),
})
export type OutputChoice = z.infer<typeof outputChoice>

export const USUAL_OUTPUT: OutputChoice = { frameRate: null, quality: 'standard', captions: 'picture', mostBytes: null }
