import type { Micros } from '../time/micros'

/**
 * A recording is looked through in parts of this length, each kept by itself, so that what is done is never done
 * again.
 */
export const PART_MICROS: Micros = 60_000_000

/** Steps of the waveform: a hundredth of a second. */
export const WAVE_STEP_MICROS: Micros = 10_000
/** Steps of loudness: a tenth of a second. */
export const LOUDNESS_STEP_MICROS: Micros = 100_000
/** Steps of speech probability: what the model hears at a time. */
export const SPEECH_STEP_MICROS: Micros = 32_000

/** What was heard in one part. Rows begin at the part's start; the last part of a recording is shorter. */
export interface SoundPart {
  /** Loudest sample of each {@link WAVE_STEP_MICROS}, 0..255 for 0..full scale. */
  peaks: Uint8Array<ArrayBuffer>
  /** Root mean square of the same steps, 0..255. */
  rms: Uint8Array<ArrayBuffer>
  /**
   * K-weighted loudness of the channels' mean in each {@link LOUDNESS_STEP_MICROS} (filters of ITU-R BS.1770,
   * ungated), LUFS as in two channels; −120 for silence.
   */
  loudness: Float32Array<ArrayBuffer>
  /** Probability of speech in each {@link SPEECH_STEP_MICROS}, 0..255 for 0..1. */
  speech: Uint8Array<ArrayBuffer>
}

/** What was seen in one part. */
export interface PicturesPart {
  pictures: { micros: Micros; picture: Blob }[]
  /** Change against the picture before, 0..1 of full scale, at each picture looked at. */
  motion: { micros: Micros; amount: number }[]
  /** First frames of shots that begin with a hard cut. */
  cuts: Micros[]
}

/** How many parts a recording of this length has. */
export function partCount(durationMicros: Micros): number {
  return Math.max(1, Math.ceil(durationMicros / PART_MICROS))
}

/** Length of part `index` in steps of `stepMicros`, rounded up. */
export function stepsInPart(index: number, durationMicros: Micros, stepMicros: Micros): number {
  return Math.ceil(Math.min(PART_MICROS, durationMicros - index * PART_MICROS) / stepMicros)
}

/** Everything known of a recording so far; rows are sparse by part: a missing index has not been looked through. */
export interface Analysis {
  durationMicros: Micros
  sound: ReadonlyMap<number, SoundPart>
  pictures: ReadonlyMap<number, PicturesPart>
}

/** Share of a recording that has been heard and seen, 0..1 each. */
export function coverage({ durationMicros, sound, pictures }: Analysis): { sound: number; pictures: number } {
  const parts = partCount(durationMicros)
  return { sound: sound.size / parts, pictures: pictures.size / parts }
}

/** Hard cuts found so far, in order. */
export function cutsOf({ pictures }: Pick<Analysis, 'pictures'>): Micros[] {
  return [...pictures.values()].flatMap((p) => p.cuts).sort((a, b) => a - b)
}
