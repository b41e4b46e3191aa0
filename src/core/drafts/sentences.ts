import type { SpeechStretch } from '../sound/ducking'
import type { Micros } from '../time/micros'

/** Speech that stops for less than this goes on: people breathe in mid-sentence. */
const BREATH_MICROS: Micros = 600_000

/** Stretches of speech, in order, joined to what is said without a pause. */
export function sentencesOf(speech: readonly SpeechStretch[]): SpeechStretch[] {
  return joinedNear(speech, BREATH_MICROS)
}

/** Stretches, in order, of which those nearer to each other than `gapMicros` are one. */
export function joinedNear(stretches: readonly SpeechStretch[], gapMicros: Micros): SpeechStretch[] {
  const joined: SpeechStretch[] = []
  for (const { fromMicros, toMicros } of stretches) {
    const last = joined.at(-1)
    if (last && fromMicros - last.toMicros < gapMicros) last.toMicros = Math.max(last.toMicros, toMicros)
    else joined.push({ fromMicros, toMicros })
  }
  return joined
}
