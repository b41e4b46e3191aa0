import { z } from 'zod'
import { draftRunId } from './ids'
import { reason } from './spotting'

/** That a highlight was made as a draft, why, and whether somebody has decided to keep it. */
export const draft = z.object({
  runId: draftRunId,
  /** How lively its moment is, 0..1. */
  score: z.number().min(0).max(1),
  reasons: z.array(reason).max(5),
  isKept: z.boolean(),
})
export type Draft = z.infer<typeof draft>
