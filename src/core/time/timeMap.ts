import type { Highlight, JoinTiming } from '../model/highlight'
import type { RecordingId } from '../model/ids'
import { ease, joinLength, type Join } from '../model/join'
import type { Passage } from '../model/passage'
import type { Micros } from './micros'

/**
 * A stretch of a recording that plays without a break: recording time `inMicros`..`outMicros`, output time
 * `startMicros`..`endMicros`, both end-exclusive.
 */
export interface Run {
  inMicros: Micros
  outMicros: Micros
  startMicros: Micros
  endMicros: Micros
}

/**
 * A passage with its place on the output clock: from `startMicros` up to, not including, `endMicros`, without what
 * joins add.
 */
export interface PlacedPassage {
  passage: Passage
  index: number
  startMicros: Micros
  endMicros: Micros
  runs: Run[]
}

/** A join that takes time, between passages `index` and `index + 1`. */
export interface PlacedJoin {
  join: Exclude<Join, { kind: 'cut' }>
  index: number
  fromMicros: Micros
  toMicros: Micros
}

/** Where everything of a highlight lies on the output clock. */
export interface TimeMap {
  passages: PlacedPassage[]
  joins: PlacedJoin[]
  lengthMicros: Micros
}

type Timed = Pick<Passage, 'inMicros' | 'outMicros' | 'speedPercent' | 'strikes'>

const atSpeed = (recordingLength: Micros, speedPercent: number): Micros =>
  Math.round((recordingLength * 100) / speedPercent)

/**
 * What is left of a passage between its cut points when its strikes are taken out: recording time, in order. Empty
 * when all is struck.
 */
export function keptStretches({
  inMicros,
  outMicros,
  strikes,
}: Omit<Timed, 'speedPercent'>): { inMicros: Micros; outMicros: Micros }[] {
  const kept: { inMicros: Micros; outMicros: Micros }[] = []
  let from = inMicros
  for (const { fromMicros, toMicros } of strikes) {
    if (toMicros <= from || fromMicros >= outMicros) continue
    if (fromMicros > from) kept.push({ inMicros: from, outMicros: fromMicros })
    from = Math.max(from, toMicros)
  }
  if (from < outMicros) kept.push({ inMicros: from, outMicros })
  return kept
}

/** How long a passage lasts in the output: what is kept of (out − in), divided by its speed. */
export function passageLength(passage: Timed): Micros {
  return runsOf(passage, 0).at(-1)?.endMicros ?? 0
}

/**
 * A passage's runs from output time `startMicros` on. Ends are computed from the sum so far, so that rounding does
 * not add up.
 */
function runsOf(passage: Timed, startMicros: Micros): Run[] {
  let kept = 0
  return keptStretches(passage).map(({ inMicros, outMicros }) => {
    const start = startMicros + atSpeed(kept, passage.speedPercent)
    kept += outMicros - inMicros
    return { inMicros, outMicros, startMicros: start, endMicros: startMicros + atSpeed(kept, passage.speedPercent) }
  })
}

/**
 * Lays a highlight's passages and joins on the output clock. A join longer than its neighbours have room for is
 * shortened.
 */
export function timeMapOf({ passages, joinTiming }: Pick<Highlight, 'passages' | 'joinTiming'>): TimeMap {
  const lengths = passages.map(passageLength)
  const joinLengths = passages.map((p, i) =>
    i + 1 < passages.length ? roomForJoin(joinLength(p.join), lengths[i] ?? 0, lengths[i + 1] ?? 0, joinTiming) : 0,
  )
  const map: TimeMap = { passages: [], joins: [], lengthMicros: 0 }
  let startMicros = 0
  passages.forEach((passage, index) => {
    const endMicros = startMicros + (lengths[index] ?? 0)
    map.passages.push({ passage, index, startMicros, endMicros, runs: runsOf(passage, startMicros) })
    map.lengthMicros = endMicros
    const length = joinLengths[index] ?? 0
    const fromMicros = joinTiming === 'overlap' ? endMicros - length : endMicros - Math.floor(length / 2)
    if (passage.join.kind !== 'cut' && length > 0)
      map.joins.push({ join: passage.join, index, fromMicros, toMicros: fromMicros + length })
    startMicros = joinTiming === 'overlap' ? endMicros - length : endMicros
  })
  return map
}

/**
 * Joins at both ends of a passage must not meet: *hold* takes half of each length from either side, *overlap* all of
 * it.
 */
function roomForJoin(wanted: Micros, before: Micros, after: Micros, timing: JoinTiming): Micros {
  const shortest = Math.min(before, after)
  return Math.max(0, Math.min(wanted, timing === 'overlap' ? Math.floor(shortest / 2) : shortest))
}

export function outputLength(highlight: Pick<Highlight, 'passages' | 'joinTiming'>): Micros {
  return timeMapOf(highlight).lengthMicros
}

/**
 * The recording time that a passage shows at output time `t`. Before its start and after its end it goes on beyond
 * the cut points.
 */
export function recordingMicrosAt(placed: Pick<PlacedPassage, 'passage' | 'runs'>, t: Micros): Micros {
  const run = placed.runs[runAt(placed, t)]
  return run
    ? run.inMicros + Math.round(((t - run.startMicros) * placed.passage.speedPercent) / 100)
    : placed.passage.inMicros
}

/**
 * The recording time whose picture a passage shows at output time `t`: where its sound is, unless its picture runs by
 * itself. May lie outside the recording.
 */
export function pictureMicrosAt(placed: Pick<PlacedPassage, 'passage' | 'runs' | 'startMicros'>, t: Micros): Micros {
  const { picture } = placed.passage
  return picture
    ? picture.inMicros + Math.round(((t - placed.startMicros) * picture.speedPercent) / 100)
    : recordingMicrosAt(placed, t)
}

/** Index of the run that plays at `t`; the first before the passage starts, the last after it has ended. */
function runAt({ runs }: Pick<PlacedPassage, 'runs'>, t: Micros): number {
  return Math.max(
    0,
    runs.findLastIndex((r) => r.startMicros <= t),
  )
}

/** The passage at work at output time `t`: the one whose own stretch holds it; null outside the highlight. */
export function passageAt(map: TimeMap, t: Micros): PlacedPassage | null {
  if (t < 0 || t >= map.lengthMicros) return null
  return map.passages.findLast((p) => p.startMicros <= t && t < p.endMicros) ?? null
}

/** What plays at output time `t`, or null outside 0 ≤ t < length. */
export function toRecordingMicros(map: TimeMap, t: Micros): { passage: Passage; recordingMicros: Micros } | null {
  const placed = passageAt(map, t)
  return placed && { passage: placed.passage, recordingMicros: recordingMicrosAt(placed, t) }
}

/** Every output time at which a moment of a recording is shown: none, one, or more when it is used more than once. */
export function toOutputMicros(map: TimeMap, recordingId: RecordingId, t: Micros): Micros[] {
  return map.passages
    .filter(({ passage }) => passage.recordingId === recordingId)
    .flatMap(({ passage, runs }) =>
      runs
        .filter((r) => t >= r.inMicros && t < r.outMicros)
        .map((r) => r.startMicros + atSpeed(t - r.inMicros, passage.speedPercent)),
    )
}

/** A passage at one moment: which of its runs plays, and where in its recording its picture is. */
export interface Playing {
  placed: PlacedPassage
  run: number
  recordingMicros: Micros
}

/** What is on screen at `t`: one passage, or two on their way from one to the other, `progress` 0..1. */
export type OnScreen =
  ({ kind: 'one' } & Playing) | { kind: 'join'; join: PlacedJoin['join']; progress: number; from: Playing; to: Playing }

export function onScreenAt(map: TimeMap, t: Micros): OnScreen | null {
  const playing = (placed: PlacedPassage): Playing => ({
    placed,
    run: runAt(placed, t),
    recordingMicros: pictureMicrosAt(placed, t),
  })
  const joining = map.joins.find((j) => t >= j.fromMicros && t < j.toMicros)
  const from = joining && map.passages[joining.index]
  const to = joining && map.passages[joining.index + 1]
  if (joining && from && to) {
    const progress = ease((t - joining.fromMicros) / (joining.toMicros - joining.fromMicros), joining.join.easing)
    return { kind: 'join', join: joining.join, progress, from: playing(from), to: playing(to) }
  }
  const placed = passageAt(map, t)
  return placed && { kind: 'one', ...playing(placed) }
}
