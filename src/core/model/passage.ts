import { z } from 'zod'
import type { Range } from '../clamp'
import { layoutId, panelId, passageId, recordingId, regionId, setupId } from './ids'
import { CUT, join } from './join'
import { micros } from './record'

/**
 * A small shift of one panel's crop for one passage: `dx`, `dy` in fractions of the frame, `zoom` on top of the
 * panel's. In one shape, or (null) in all that have none of their own.
 */
export const correction = z.object({
  panelId,
  dx: z.number().min(-1).max(1),
  dy: z.number().min(-1).max(1),
  zoom: z.number().min(1).max(20),
  shapeId: z.string().max(80).nullable().default(null),
})

export const SHIFT_SCALE: Range = { least: 0.1, most: 10 }

/**
 * Where a region lies differently in one passage: shifted by `dx`, `dy` in fractions of the frame, its sides times
 * `scale` about its centre.
 */
export const regionShift = z.object({
  regionId,
  dx: z.number().min(-1).max(1),
  dy: z.number().min(-1).max(1),
  scale: z.number().min(SHIFT_SCALE.least).max(SHIFT_SCALE.most),
})
export type RegionShift = z.infer<typeof regionShift>

/**
 * A place that a crop path goes through, fractions of the frame at a recording time. `jump`: the path comes here at
 * once, as at a hard cut.
 */
export const pathKey = z.object({
  micros,
  x: z.number().min(0).max(1),
  y: z.number().min(0).max(1),
  jump: z.boolean().default(false),
})
export type PathKey = z.infer<typeof pathKey>

export const MAX_PATH_KEYS = 2000

/** What the middle of a region's crops follows in one passage. Keys in rising order of time. */
export const cropPath = z.object({ regionId, keys: z.array(pathKey).min(1).max(MAX_PATH_KEYS) })
export type CropPath = z.infer<typeof cropPath>

/**
 * A stretch inside a passage that is left out: recording time, end-exclusive. What lies outside the passage's own cut
 * points waits there.
 */
export const strike = z
  .object({ fromMicros: micros, toMicros: micros })
  .refine((s) => s.toMicros > s.fromMicros, { message: 'must lie after the start', path: ['toMicros'] })
export type Strike = z.infer<typeof strike>

/**
 * How a panel's own recording runs. *Together*: beside the passage's own picture, through strikes and speeds,
 * `offsetMicros` later in its recording. *Own*: from the passage's start on, at a speed of its own.
 */
export const feedClock = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('together'), offsetMicros: z.number().int() }),
  z.object({ kind: z.literal('own'), inMicros: micros, speedPercent: z.number().int().min(25).max(400).default(100) }),
])
export type FeedClock = z.infer<typeof feedClock>

/**
 * What one panel plays instead of the passage: another passage's shot, which goes on beyond its cut points, or a
 * recording of its own.
 */
export const panelFeed = z.object({
  panelId,
  plays: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('passage'), passageId }),
    z.object({
      kind: z.literal('recording'),
      recordingId,
      setupId,
      clock: feedClock,
      /** Whether its sound is heard as well. */ heard: z.boolean().default(false),
    }),
  ]),
})
export type PanelFeed = z.infer<typeof panelFeed>
export type RecordingFeed = Extract<PanelFeed['plays'], { kind: 'recording' }>

/**
 * How a passage's picture runs when it goes by itself: from `inMicros` of the recording on at the passage's start,
 * through its strikes; its sound stays where the passage has it.
 */
export const pictureClock = z.object({ inMicros: micros, speedPercent: z.number().int().min(25).max(400) })
export type PictureClock = z.infer<typeof pictureClock>

/** A passage's own sound. Fades lie inside the passage, on the output clock. */
export const passageSound = z.object({
  gainDb: z.number().min(-60).max(24),
  muted: z.boolean(),
  fadeInMicros: micros.max(30_000_000),
  fadeOutMicros: micros.max(30_000_000),
})
export type PassageSound = z.infer<typeof passageSound>

export const PLAIN_SOUND: PassageSound = { gainDb: 0, muted: false, fadeInMicros: 0, fadeOutMicros: 0 }

export const MAX_CORRECTIONS = 100
export const MAX_FEEDS = 24
/** Regions that lie differently in a passage, and such whose crops follow a path. */
export const MAX_SHIFTS = 40
export const MAX_PATHS = 40
export const MAX_STRIKES = 2000

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
    corrections: z.array(correction).max(MAX_CORRECTIONS).default([]),
    regionShifts: z.array(regionShift).max(MAX_SHIFTS).default([]),
    cropPaths: z.array(cropPath).max(MAX_PATHS).default([]),
    feeds: z.array(panelFeed).max(MAX_FEEDS).default([]),
    /** In rising order, never touching. */
    strikes: z.array(strike).max(MAX_STRIKES).default([]),
    /** Null: with its sound. */
    picture: pictureClock.nullable().default(null),
    sound: passageSound.default(PLAIN_SOUND),
    /** How it passes into the next; of no effect on the last. */
    join: join.default(CUT),
  })
  .refine((p) => p.outMicros > p.inMicros, { message: 'must lie after the in point', path: ['outMicros'] })

export type Passage = z.infer<typeof passage>
export type Correction = z.infer<typeof correction>

/**
 * A passage by what makes it one; the rest is normal speed with nothing struck out, its sound as recorded, cutting
 * straight to the next.
 */
export function newPassage(
  made: Pick<Passage, 'id' | 'recordingId' | 'inMicros' | 'outMicros' | 'setupId' | 'layoutId'>,
): Passage {
  return {
    ...made,
    speedPercent: 100,
    corrections: [],
    regionShifts: [],
    cropPaths: [],
    feeds: [],
    strikes: [],
    picture: null,
    sound: PLAIN_SOUND,
    join: CUT,
  }
}

/** The recordings that single panels play instead of a passage's own. */
export function recordingFeeds({ feeds }: Pick<Passage, 'feeds'>): RecordingFeed[] {
  return feeds.flatMap(({ plays }) => (plays.kind === 'recording' ? [plays] : []))
}

/** Every recording that a passage plays, its own first. */
export function recordingsIn(passage: Passage): Passage['recordingId'][] {
  return [...new Set([passage.recordingId, ...recordingFeeds(passage).map((f) => f.recordingId)])]
}

/** Every setup that a passage uses, its own first. */
export function setupsIn(passage: Passage): Passage['setupId'][] {
  return [...new Set([passage.setupId, ...recordingFeeds(passage).map((f) => f.setupId)])]
}

/**
 * How a panel's crop is shifted in a shape: by that shape's own correction, else by what goes for all; undefined
 * where it is as it comes.
 */
export function correctionFor(
  { corrections }: Pick<Passage, 'corrections'>,
  id: Correction['panelId'],
  shapeId: string,
): Correction | undefined {
  const own = corrections.filter((c) => c.panelId === id)
  return own.find((c) => c.shapeId === shapeId) ?? own.find((c) => c.shapeId === null)
}
