import type { Edit } from '../model/edit'
import type { RecordingId } from '../model/ids'
import type { Micros } from './micros'
import { pictureMicrosAt, type PlacedPassage, type TimeMap } from './timeMap'

/** Recordings are copied for looking in pieces of this length, counted from their beginning. */
export const PIECE_MICROS = 8_000_000

/** Beside what plays, so much is copied too: cut points are moved. */
const BESIDE_MICROS = 3_000_000

/** A piece of a recording: from `index` × {@link PIECE_MICROS} on. */
export interface Piece {
  recordingId: RecordingId
  index: number
}

export const pieceAt = (micros: Micros): number => Math.floor(Math.max(0, micros) / PIECE_MICROS)

/**
 * The pieces that a highlight plays or may soon play, of recordings that `isWanted`: from output time `hereMicros` on
 * in the order in which they play, then those before, the nearest first.
 */
export function piecesOf(
  { recordings }: Pick<Edit, 'recordings'>,
  map: TimeMap,
  hereMicros: Micros,
  isWanted: (id: RecordingId) => boolean,
): Piece[] {
  const found = new Map<string, Piece & { urgency: number }>()
  for (const placed of map.passages) {
    const { recordingId } = placed.passage
    const length = recordings.find((r) => r.id === recordingId)?.durationMicros ?? 0
    if (!isWanted(recordingId)) continue
    for (const { fromMicros, toMicros, startMicros } of stretchesOf(placed)) {
      const from = Math.max(0, fromMicros - BESIDE_MICROS)
      const to = Math.min(length, toMicros + BESIDE_MICROS)
      const onOutput = (t: Micros) => startMicros + Math.min(Math.max(t, fromMicros), toMicros) - fromMicros
      for (let index = pieceAt(from); index * PIECE_MICROS < to; index++) {
        const starts = onOutput(index * PIECE_MICROS)
        const urgency = urgencyOf(starts, onOutput((index + 1) * PIECE_MICROS), hereMicros)
        const key = `${recordingId} ${index}`
        if (urgency < (found.get(key)?.urgency ?? Infinity)) found.set(key, { recordingId, index, urgency })
      }
    }
  }
  return [...found.values()]
    .sort((a, b) => a.urgency - b.urgency)
    .map(({ recordingId, index }) => ({ recordingId, index }))
}

/** What plays from `starts` to `ends` of the output: what comes in its order, and after all of that what is over. */
function urgencyOf(starts: Micros, ends: Micros, here: Micros): number {
  return ends > here || starts >= here ? Math.max(0, starts - here) : Number.MAX_SAFE_INTEGER / 2 + here - ends
}

/** What a passage shows of its recording: its runs, or where its picture runs by itself. */
function stretchesOf(placed: PlacedPassage): { fromMicros: Micros; toMicros: Micros; startMicros: Micros }[] {
  if (placed.passage.picture)
    return [
      {
        fromMicros: pictureMicrosAt(placed, placed.startMicros),
        toMicros: pictureMicrosAt(placed, placed.endMicros),
        startMicros: placed.startMicros,
      },
    ]
  return placed.runs.map(({ inMicros, outMicros, startMicros }) => ({
    fromMicros: inMicros,
    toMicros: outMicros,
    startMicros,
  }))
}
