import type { SpeechStretch } from '../sound/ducking'
import type { Micros } from '../time/micros'
import { PART_MICROS, SPEECH_STEP_MICROS, type Analysis } from './analysis'

/** Speech begins when its probability rises over this, and lasts until it falls under the lower one. */
const ON = 0.5 * 255
const OFF = 0.35 * 255

/** Silences shorter than this lie inside speech. */
const MIN_SILENCE_MICROS = 300_000
/** Speech shorter than this is a cough or a click. */
const MIN_SPEECH_MICROS = 120_000
/** The detector holds on a little after the last sound. */
const PULL_IN_MICROS = 64_000

/** Stretches of speech in a row of probabilities (0..255 for 0..1), one for each `stepMicros` from `fromMicros` on. */
export function speechStretches(
  probabilities: ArrayLike<number>,
  fromMicros: Micros,
  stepMicros: Micros = SPEECH_STEP_MICROS,
): SpeechStretch[] {
  const stretches: SpeechStretch[] = []
  const count = probabilities.length
  for (let i = 0; i < count; i++) {
    while (i < count && (probabilities[i] as number) < ON) i++
    const start = fromMicros + i * stepMicros
    while (i < count && (probabilities[i] as number) >= OFF) i++
    const end = fromMicros + i * stepMicros
    const last = stretches.at(-1)
    if (end === start) break
    if (last && start - last.toMicros < MIN_SILENCE_MICROS) last.toMicros = end
    else stretches.push({ fromMicros: start, toMicros: end })
  }
  return stretches
    .map((s) => ({ ...s, toMicros: Math.max(s.fromMicros + stepMicros, s.toMicros - PULL_IN_MICROS) }))
    .filter((s) => s.toMicros - s.fromMicros >= MIN_SPEECH_MICROS)
}

/**
 * Speech in everything that has been heard of a recording, in order; stretches that meet at the border of two parts
 * are joined.
 */
export function speechOfAnalysis({ sound }: Pick<Analysis, 'sound'>): SpeechStretch[] {
  const parts = [...sound].sort(([a], [b]) => a - b)
  const joined: SpeechStretch[] = []
  for (const [index, { speech }] of parts)
    for (const s of speechStretches(speech, index * PART_MICROS)) {
      const last = joined.at(-1)
      if (last && s.fromMicros - last.toMicros < MIN_SILENCE_MICROS) last.toMicros = Math.max(last.toMicros, s.toMicros)
      else joined.push(s)
    }
  return joined
}
