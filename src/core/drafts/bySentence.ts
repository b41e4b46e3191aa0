import type { SpeechStretch } from '../sound/ducking'
import type { Micros } from '../time/micros'
import { sentencesOf } from './sentences'

/** Nearer than this an edge stands at a sentence's already. */
const HERE_MICROS: Micros = 400_000

/**
 * Where an edge goes when it is moved by a sentence: an in point to where the one before, or the next, begins; an out
 * point to where it ends. Null where there is none.
 */
export function edgeBySentence(
  speech: readonly SpeechStretch[],
  which: 'in' | 'out',
  t: Micros,
  direction: 'earlier' | 'later',
): Micros | null {
  const edges = sentencesOf(speech).map((s) => (which === 'in' ? s.fromMicros : s.toMicros))
  const found =
    direction === 'earlier'
      ? edges.findLast((edge) => edge < t - HERE_MICROS)
      : edges.find((edge) => edge > t + HERE_MICROS)
  return found ?? null
}
