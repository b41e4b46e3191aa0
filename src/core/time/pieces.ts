import type { Edit } from '../model/edit'
import type { RecordingId } from '../model/ids'
import type { Micros } from './micros'
import type { PlacedPassage, TimeMap } from './timeMap'

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
  for (const stretch of map.passages.flatMap((placed) => [...stretchesOf(placed), ...stretchesOfFeeds(placed)])) {
    const { recordingId, fromMicros, toMicros } = stretch
    if (!isWanted(recordingId)) continue
    const length = recordings.find((r) => r.id === recordingId)?.durationMicros ?? 0
    const from = Math.max(0, fromMicros - BESIDE_MICROS)
    const to = Math.min(length, toMicros + BESIDE_MICROS)
    for (let index = pieceAt(from); index * PIECE_MICROS < to; index++) {
      const starts = onOutput(stretch, index * PIECE_MICROS)
      const urgency = urgencyOf(starts, onOutput(stretch, (index + 1) * PIECE_MICROS), hereMicros)
      const key = `${recordingId} ${index}`
      if (urgency < (found.get(key)?.urgency ?? Infinity)) found.set(key, { recordingId, index, urgency })
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

/** A stretch of a recording, and when it plays on the output clock. */
interface Stretch {
  recordingId: RecordingId
  fromMicros: Micros
  toMicros: Micros
  startMicros: Micros
  endMicros: Micros
}

/** When a moment of a stretch's recording plays; of what lies beside it, when that begins or ends. */
function onOutput({ fromMicros, toMicros, startMicros, endMicros }: Stretch, t: Micros): Micros {
  const share = (Math.min(Math.max(t, fromMicros), toMicros) - fromMicros) / Math.max(1, toMicros - fromMicros)
  return startMicros + share * (endMicros - startMicros)
}

/** What a passage shows of its recording: its runs, or where its picture runs by itself. */
function stretchesOf({ passage, runs, startMicros, endMicros }: PlacedPassage): Stretch[] {
  const { recordingId, picture } = passage
  if (picture) return [pictureStretch({ recordingId, ...picture }, startMicros, endMicros)]
  return runs.map((run) => ({
    recordingId,
    fromMicros: run.inMicros,
    toMicros: run.outMicros,
    startMicros: run.startMicros,
    endMicros: run.endMicros,
  }))
}

/** What a passage's panels play of other recordings. */
function stretchesOfFeeds(placed: PlacedPassage): Stretch[] {
  return placed.passage.feeds.flatMap(({ plays }) => {
    if (plays.kind !== 'recording') return []
    const { recordingId, clock } = plays
    if (clock.kind === 'own') return [pictureStretch({ recordingId, ...clock }, placed.startMicros, placed.endMicros)]
    return stretchesOf(placed).map((stretch) => ({
      ...stretch,
      recordingId,
      fromMicros: stretch.fromMicros + clock.offsetMicros,
      toMicros: stretch.toMicros + clock.offsetMicros,
    }))
  })
}

/** What a clock of its own plays of a recording in a stretch of the output. */
function pictureStretch(
  { recordingId, inMicros, speedPercent }: { recordingId: RecordingId; inMicros: Micros; speedPercent: number },
  startMicros: Micros,
  endMicros: Micros,
): Stretch {
  const toMicros = inMicros + Math.round(((endMicros - startMicros) * speedPercent) / 100)
  return { recordingId, fromMicros: inMicros, toMicros, startMicros, endMicros }
}
