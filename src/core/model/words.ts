import { z } from 'zod'
import { colour } from './colour'
import { cueId, recordingId, speakerId, titleId } from './ids'
import { micros } from './record'
import { PLAIN_TEXT, textStyle } from './textStyle'

/**
 * When one word of a cue is spoken: recording time. `confidence`: how sure a recogniser was of it, 0..1; absent where
 * nobody said.
 */
export const spokenWord = z.object({
  text: z.string().min(1).max(200),
  fromMicros: micros,
  toMicros: micros,
  confidence: z.number().min(0).max(1).optional(),
})
export type SpokenWord = z.infer<typeof spokenWord>

/** Longer than anybody says at one go. */
export const MAX_CUE_LENGTH = 2000
/** A day of talking. */
export const MAX_CUES = 20_000
/** Words of a cue whose times are known. */
export const MAX_CUE_WORDS = 1000

/**
 * What is said, and when: recording time, end-exclusive, since it belongs to what was said; cutting, moving and speed
 * carry it. `words` is empty where their times are not known; an empty `text` is a stretch of speech that nobody has
 * written down yet.
 */
export const cue = z
  .object({
    id: cueId,
    recordingId,
    fromMicros: micros,
    toMicros: micros,
    text: z.string().max(MAX_CUE_LENGTH),
    words: z.array(spokenWord).max(MAX_CUE_WORDS).default([]),
    speakerId: speakerId.nullable().default(null),
  })
  .refine((c) => c.toMicros > c.fromMicros, { message: 'must lie after the start', path: ['toMicros'] })
export type Cue = z.infer<typeof cue>

export const speaker = z.object({
  id: speakerId,
  name: z.string().trim().min(1).max(100),
  colour: colour.nullable().default(null),
})
export type Speaker = z.infer<typeof speaker>

/** How cues are shown. `speakers`: who is speaking is told by colour, by a name before the words, or not. */
export const captions = z.object({
  shown: z.boolean(),
  style: textStyle,
  speakers: z.enum(['none', 'colour', 'name']).default('colour'),
})
export type Captions = z.infer<typeof captions>

const PLAIN_CAPTIONS: Captions = { shown: true, style: PLAIN_TEXT, speakers: 'colour' }

/** A card of words: output time, end-exclusive; null stands for the highlight's own start or end. */
export const titleCard = z.object({
  id: titleId,
  text: z.string().max(500),
  fromMicros: micros.nullable().default(null),
  toMicros: micros.nullable().default(null),
  style: textStyle,
})
export type TitleCard = z.infer<typeof titleCard>

export const MAX_SPEAKERS = 40
export const MAX_TITLES = 40

/** Everything that is written on a highlight's picture. */
export const words = z.object({
  /** By recording, then in the order of their starts. */
  cues: z.array(cue).max(MAX_CUES).default([]),
  speakers: z.array(speaker).max(MAX_SPEAKERS).default([]),
  captions: captions.default(PLAIN_CAPTIONS),
  titles: z.array(titleCard).max(MAX_TITLES).default([]),
})
export type Words = z.infer<typeof words>

export const NO_WORDS: Words = { cues: [], speakers: [], captions: PLAIN_CAPTIONS, titles: [] }
