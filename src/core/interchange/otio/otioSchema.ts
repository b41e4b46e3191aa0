import { z } from 'zod'

/**
 * The objects of OpenTimelineIO (JSON, schema versions as of 0.17) that a timeline of ours is made of, or may hold
 * when others made it.
 */

export const rationalTime = z.object({
  OTIO_SCHEMA: z.literal('RationalTime.1'),
  rate: z.number().positive().max(1e7),
  value: z.number().min(-1e15).max(1e15),
})
export const timeRange = z.object({
  OTIO_SCHEMA: z.literal('TimeRange.1'),
  start_time: rationalTime,
  duration: rationalTime,
})
export type RationalTime = z.infer<typeof rationalTime>
export type TimeRange = z.infer<typeof timeRange>

const metadata = z.record(z.string(), z.unknown()).default({})
const name = z.string().max(1000).nullable().default('')
const common = { name, metadata }

export const marker = z.object({
  OTIO_SCHEMA: z.enum(['Marker.1', 'Marker.2']),
  ...common,
  marked_range: timeRange,
  color: z.string().nullable().default('GREEN'),
})
export type Marker = z.infer<typeof marker>

/** Effects that we do not know are carried past. */
export const effect = z.looseObject({
  OTIO_SCHEMA: z.string(),
  ...common,
  effect_name: z.string().nullable().default(''),
  time_scalar: z.number().min(0.01).max(100).optional(),
})
export type Effect = z.infer<typeof effect>

export const reference = z.looseObject({
  OTIO_SCHEMA: z.string(),
  ...common,
  target_url: z.string().max(10_000).optional(),
  available_range: timeRange.nullable().optional(),
})
export type Reference = z.infer<typeof reference>

const item = {
  ...common,
  source_range: timeRange.nullable().default(null),
  effects: z.array(effect).max(100).default([]),
  markers: z.array(marker).max(20_000).default([]),
  enabled: z.boolean().default(true),
}

/** Version 1 has one reference, version 2 several by key. */
export const clip = z.object({
  OTIO_SCHEMA: z.enum(['Clip.1', 'Clip.2']),
  ...item,
  media_reference: reference.nullable().optional(),
  media_references: z.record(z.string(), reference).optional(),
  active_media_reference_key: z.string().optional(),
})
export const gap = z.object({ OTIO_SCHEMA: z.literal('Gap.1'), ...item })
export const transition = z.object({
  OTIO_SCHEMA: z.literal('Transition.1'),
  ...common,
  in_offset: rationalTime,
  out_offset: rationalTime,
  transition_type: z.string().default('SMPTE_Dissolve'),
})
const other = z.looseObject({ OTIO_SCHEMA: z.string() })
export const child = z.union([clip, gap, transition, other])
export type Clip = z.infer<typeof clip>
export type Child = z.infer<typeof child>

export const track = z.object({
  OTIO_SCHEMA: z.literal('Track.1'),
  ...item,
  kind: z.string().default('Video'),
  children: z.array(child).max(20_000),
})
export type Track = z.infer<typeof track>
export const stack = z.object({
  OTIO_SCHEMA: z.literal('Stack.1'),
  ...item,
  children: z.array(z.union([track, other])).max(200),
})
export const timeline = z.object({
  OTIO_SCHEMA: z.literal('Timeline.1'),
  ...common,
  global_start_time: rationalTime.nullable().default(null),
  tracks: stack,
})
export type Timeline = z.infer<typeof timeline>

export const isClip = (value: Child): value is Clip => clip.safeParse(value).success
export const isTrack = (value: unknown): value is Track => track.safeParse(value).success
