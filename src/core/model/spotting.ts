import { z } from 'zod'
import { momentId, recordingId } from './ids'
import { micros, recordBase } from './record'

/** Why a moment was proposed: what was unusual, and by how much. Data; the interface words it. */
export const reason = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('loud'), decibelsOver: z.number() }),
  z.object({ kind: z.literal('motion'), timesUsual: z.number() }),
  z.object({ kind: z.literal('speech-burst'), shareOver: z.number() }),
])
export type Reason = z.infer<typeof reason>

/** Where a moment comes from: found by Brimble, marked while watching, or read from a file. */
export const momentSource = z.enum(['proposed', 'marked', 'imported'])

/**
 * A stretch of a recording worth a highlight: recording time, end-exclusive. `peakMicros` is when the thing itself
 * happens.
 */
export const moment = z.object({
  id: momentId,
  source: momentSource,
  inMicros: micros,
  outMicros: micros,
  peakMicros: micros,
  label: z.string().max(200),
  /** 0..1 for proposed ones; null for the person's own. */
  score: z.number().min(0).max(1).nullable(),
  reasons: z.array(reason).max(5),
  state: z.enum(['open', 'kept', 'dropped', 'cut']),
})
export type Moment = z.infer<typeof moment>

/** How much each sign counts in liveliness; relative to one another. */
export const weights = z.object({
  loudness: z.number().min(0).max(1),
  motion: z.number().min(0).max(1),
  speech: z.number().min(0).max(1),
})
export type Weights = z.infer<typeof weights>

export const DEFAULT_WEIGHTS: Weights = { loudness: 0.9, motion: 0.1, speech: 0.1 }

export const MAX_MOMENTS = 2000

/** All that is decided about a recording on the Spot screen. */
export const spotting = recordBase.extend({
  id: recordingId,
  moments: z.array(moment).max(MAX_MOMENTS),
  weights,
  /** A mark is set this much before the key was pressed. */
  reactionMicros: micros.max(30_000_000),
  /** No proposed moment is longer. */
  mostMicros: micros.min(2_000_000).max(600_000_000),
  /** How many moments are proposed. */
  proposals: z.number().int().min(1).max(100),
})
export type Spotting = z.infer<typeof spotting>
