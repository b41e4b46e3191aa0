import type { Passage } from '../model/passage'
import type { RecordingId } from '../model/ids'
import type { Micros } from './micros'

/** A passage with its place on the output clock: from `startMicros` up to, not including, `endMicros`. */
export interface PlacedPassage {
  passage: Passage
  startMicros: Micros
  endMicros: Micros
}

/** How long a passage lasts in the output: (out − in) / speed. */
export function passageLength(passage: Pick<Passage, 'inMicros' | 'outMicros' | 'speedPercent'>): Micros {
  return Math.round(((passage.outMicros - passage.inMicros) * 100) / passage.speedPercent)
}

/** Lays passages end to end on the output clock. */
export function placePassages(passages: readonly Passage[]): PlacedPassage[] {
  let startMicros = 0
  return passages.map((passage) => {
    const endMicros = startMicros + passageLength(passage)
    const placed = { passage, startMicros, endMicros }
    startMicros = endMicros
    return placed
  })
}

export function outputLength(passages: readonly Passage[]): Micros {
  return passages.reduce((sum, passage) => sum + passageLength(passage), 0)
}

/** What plays at output time `t`, or null outside 0 ≤ t < length. */
export function toRecordingMicros(
  placed: readonly PlacedPassage[],
  t: Micros,
): { passage: Passage; recordingMicros: Micros } | null {
  const at = placed.find((p) => t >= p.startMicros && t < p.endMicros)
  if (!at) return null
  const { passage } = at
  return { passage, recordingMicros: passage.inMicros + Math.round(((t - at.startMicros) * passage.speedPercent) / 100) }
}

/** Every output time at which a moment of a recording is shown: none, one, or more when it is used more than once. */
export function toOutputMicros(placed: readonly PlacedPassage[], recordingId: RecordingId, t: Micros): Micros[] {
  return placed
    .filter(({ passage }) => passage.recordingId === recordingId && t >= passage.inMicros && t < passage.outMicros)
    .map(({ passage, startMicros }) => startMicros + Math.round(((t - passage.inMicros) * 100) / passage.speedPercent))
}
