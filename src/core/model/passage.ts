import { z } from 'zod'
import { layoutId, panelId, passageId, recordingId, setupId } from './ids'
import { micros } from './record'

/** A small shift of one panel's crop for one passage: `dx`, `dy` in fractions of the frame, `zoom` on top of the panel's. */
export const correction = z.object({
  panelId,
  dx: z.number().min(-1).max(1),
  dy: z.number().min(-1).max(1),
  zoom: z.number().min(1).max(20),
})

/** A stretch of a recording used in a highlight: recording time from `inMicros` up to, not including, `outMicros`. */
export const passage = z
  .object({
    id: passageId,
    recordingId,
    inMicros: micros,
    outMicros: micros,
    speedPercent: z.number().int().min(25).max(400).default(100),
    setupId,
    layoutId,
    corrections: z.array(correction).max(100).default([]),
  })
  .refine((p) => p.outMicros > p.inMicros, { message: 'must lie after the in point', path: ['outMicros'] })

export type Passage = z.infer<typeof passage>
export type Correction = z.infer<typeof correction>
