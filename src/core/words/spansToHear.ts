import type { SpeechStretch } from '../sound/ducking'
import type { Micros } from '../time/micros'

/** Pauses longer than this are not listened to: a model that hears nothing makes things up. */
const LONGEST_PAUSE = 1_500_000

/** Heard before and after speech, so that no first sound is cut off. */
const MARGIN = 200_000

/**
 * Stretches of speech gathered into spans of at most `mostMicros`, rising and apart, as few as pauses allow: a
 * recogniser does better with what was said before.
 */
export function spansToHear(speech: readonly SpeechStretch[], mostMicros: Micros): SpeechStretch[] {
  const spans: SpeechStretch[] = []
  for (const stretch of speech) {
    let fromMicros = Math.max(0, stretch.fromMicros - MARGIN, spans.at(-1)?.toMicros ?? 0)
    const toMicros = stretch.toMicros + MARGIN
    const last = spans.at(-1)
    if (last && fromMicros - last.toMicros <= LONGEST_PAUSE && toMicros - last.fromMicros <= mostMicros) {
      last.toMicros = toMicros
      continue
    }
    for (; toMicros - fromMicros > mostMicros; fromMicros += mostMicros)
      spans.push({ fromMicros, toMicros: fromMicros + mostMicros })
    if (toMicros > fromMicros) spans.push({ fromMicros, toMicros })
  }
  return spans
}
