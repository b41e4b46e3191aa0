import { z } from 'zod'
import { recordingId } from './ids'
import { frameRate, micros, recordBase, title } from './record'

/** Where a recording's bytes are: a copy kept in the browser, or a link to the person's own file. */
export const recordingSource = z.enum(['kept', 'linked'])

export const videoFacts = z.object({
  /**
   * Display-oriented size in square pixels: after rotation and pixel aspect. Nothing can be cut from less than the
   * two pixels that share a colour.
   */
  width: z.number().int().min(2).max(16384),
  height: z.number().int().min(2).max(16384),
  /** Clockwise turn, in degrees, that the container asks for; already counted into width and height. */
  rotation: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]),
  frameRate,
  variableFrameRate: z.boolean(),
  /** Recording time at which the first frame starts; the clock of `frameRate` counts from here. */
  firstFrameMicros: micros,
  codec: z.string().max(80),
})

export const soundFacts = z.object({
  codec: z.string().max(80),
  sampleRate: z.number().int().positive().max(768000),
  channels: z.number().int().positive().max(64),
  /** Recording time at which sound starts; later than 0 when a recorder began its sound late. */
  startMicros: micros,
})

/** Something true of a recording that its owner should know. Data; the interface words it. */
export const recordingNotice = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('ends-early'), expectedMicros: micros }),
  z.object({ kind: z.literal('sound-not-decodable'), codec: z.string().max(80) }),
  /** Its first key frame comes so long after its first picture; what lies before cannot be shown. */
  z.object({ kind: z.literal('starts-without-key-frame'), lostMicros: micros }),
  /** It holds so many sound tracks; the one that is heard, by its name if it has one. */
  z.object({ kind: z.literal('several-sound-tracks'), count: z.number().int().min(2), heard: z.string().max(80) }),
  z.object({ kind: z.literal('several-picture-tracks'), count: z.number().int().min(2) }),
  /** Its sound ends so long after its last picture. */
  z.object({ kind: z.literal('sound-goes-on'), beyondMicros: micros }),
  z.object({ kind: z.literal('interlaced') }),
  /** Its picture has another size at the end than at the start. */
  z.object({ kind: z.literal('size-changes'), width: z.number().int(), height: z.number().int() }),
  /** Its clock began anew part-way; it was kept with one that goes on. */
  z.object({ kind: z.literal('clock-mended') }),
  /** What is kept is a copy in H.264 of a recording that the browser could not read; the name is the recording's. */
  z.object({ kind: z.literal('working-copy'), fromHdr: z.boolean() }),
])

/** A source file: what it holds and when it was made. Its bytes are kept apart (see store/files). */
export const recording = recordBase.extend({
  id: recordingId,
  name: title,
  fileName: z.string().max(1000),
  sizeBytes: z.number().int().nonnegative(),
  recordedAt: z.iso.datetime(),
  durationMicros: micros,
  /** The container's own time, in microseconds, that recording time 0 stands for. */
  originMicros: z.number().int(),
  video: videoFacts,
  sound: soundFacts.nullable(),
  source: recordingSource,
  notices: z.array(recordingNotice).max(10).default([]),
})

export type Recording = z.infer<typeof recording>
export type RecordingNotice = z.infer<typeof recordingNotice>
export type VideoFacts = z.infer<typeof videoFacts>
export type SoundFacts = z.infer<typeof soundFacts>
