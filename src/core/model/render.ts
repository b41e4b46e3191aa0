import { z } from 'zod'
import { edit } from './edit'
import { batchId, highlightId, renderId } from './ids'
import { captionsIn, coding, outputChoice } from './outputChoice'
import { frameRate, micros, recordBase } from './record'
import { shape } from './shape'

/** How the file is coded. MP4 plays everywhere; WebM is for browsers that cannot write MP4. */
export const container = z.enum(['mp4', 'webm'])
export type Container = z.infer<typeof container>

export const renderSettings = z.object({
  /** Of the picture, px; null: as its shape. */
  size: z
    .object({ width: z.number().int().min(64).max(3840), height: z.number().int().min(64).max(3840) })
    .nullable()
    .default(null),
  frameRate,
  coding: coding.default('mp4-h264'),
  /** Encoders that can hold a quality, whatever it takes, do so; others and null: by the bitrate. */
  constantQuality: outputChoice.shape.quality.nullable().default(null),
  captions: captionsIn.default('picture'),
  /** Bits per second for the picture. */
  videoBitrate: z.number().int().min(100_000).max(200_000_000),
  /** Bits per second for the sound. */
  audioBitrate: z.number().int().min(32_000).max(512_000),
  /** LUFS that the whole is brought to; null: as it is mixed. */
  loudness: z.number().min(-40).max(-5).nullable().default(null),
  poster: z.boolean().default(false),
  loop: z.boolean().default(false),
})
export type RenderSettings = z.infer<typeof renderSettings>

/** Why a render ended without a file. Data; the interface words it. */
export const renderFailure = z.discriminatedUnion('reason', [
  z.object({ reason: z.literal('source-missing'), fileName: z.string() }),
  z.object({ reason: z.literal('source-unreadable'), fileName: z.string(), atMicros: micros, detail: z.string() }),
  z.object({ reason: z.literal('encoder-refuses-size'), width: z.number(), height: z.number() }),
  z.object({ reason: z.literal('no-room'), neededBytes: z.number().nullable() }),
  z.object({ reason: z.literal('interrupted') }),
  z.object({ reason: z.literal('nodes-failed'), detail: z.string().max(2000) }),
  z.object({ reason: z.literal('broken'), detail: z.string() }),
])
export type RenderFailure = z.infer<typeof renderFailure>

/**
 * How long a render waited for pictures of its recordings, for them to be drawn, and for encoders, ms of wall time;
 * decoders and encoders work beside all of it.
 */
export const renderStages = z.object({
  decodeMs: z.number().nonnegative(),
  drawMs: z.number().nonnegative(),
  encodeMs: z.number().nonnegative(),
})
export type RenderStages = z.infer<typeof renderStages>

export const finishedFile = z.object({
  fileName: z.string(),
  sizeBytes: z.number().int().nonnegative(),
  container,
  videoCodec: z.string(),
  audioCodec: z.string().nullable(),
  /** Whether its sound was coded by the AAC encoder that ships with the application. */
  shippedAac: z.boolean().default(false),
  frames: z.number().int().nonnegative(),
  /** How many of its frames are those of a recording as they were coded. */
  framesTakenOver: z.number().int().nonnegative().default(0),
  /** Stills and loops that were made with it. */
  extras: z
    .array(z.object({ kind: z.enum(['poster', 'loop']), sizeBytes: z.number().int().nonnegative() }))
    .max(2)
    .default([]),
  /** What it was called in the folder that finished files go to; null: not put there yet. */
  savedAs: z.string().nullable().default(null),
  /** Wall time from start to whole file; of several made in one go, its share. */
  tookMs: z.number().nonnegative(),
  stages: renderStages.nullable().default(null),
})
export type FinishedFile = z.infer<typeof finishedFile>

export const renderState = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('waiting') }),
  z.object({ kind: z.literal('running') }),
  z.object({ kind: z.literal('finished'), file: finishedFile }),
  z.object({ kind: z.literal('failed'), failure: renderFailure }),
  /** Handed to render nodes, which have not ended with it. */
  z.object({ kind: z.literal('away') }),
  /** Made by a render node, into the nodes' folder. */
  z.object({
    kind: z.literal('made-away'),
    names: z.array(z.string()).max(10),
    node: z.string().max(200),
    sizeBytes: z.number().nonnegative(),
    frames: z.number().int().nonnegative(),
    tookMs: z.number().nonnegative(),
  }),
])
export type RenderState = z.infer<typeof renderState>

/** One file made, being made or to be made: highlight × shape × settings, with the exact edit it comes from. */
export const render = recordBase.extend({
  id: renderId,
  highlightId,
  shape,
  /** What was asked for in one go is made in one go where it can be; see core/output/renderGroups. */
  batchId: batchId.nullable().default(null),
  /** Its place in the queue, lower first. */
  order: z.number().default(0),
  /** How often a closed tab or a crash has cut it short. */
  interruptions: z.number().int().nonnegative().default(0),
  /** Where the file is headed, for its name; null: nowhere in particular. */
  outletName: z.string().max(200).nullable().default(null),
  settings: renderSettings,
  edit,
  state: renderState,
})

export type Render = z.infer<typeof render>
