import type { Point } from '../../geometry/rect'
import type { PathKey } from '../../model/passage'
import type { Micros } from '../../time/micros'

/** Where the subject is at a moment, fractions of the frame; null where it was not found. */
export interface FollowSample {
  micros: Micros
  at: Point | null
}

export interface FollowSettings {
  /** So far from the path's place the subject may be while the crop holds still, fractions of the frame each way. */
  reach: Point
  /** The crop moves no faster, fractions of the frame's width or height in a second. */
  mostPerSecond: number
}

/** A crop holds still for at least this long, or it seems to tremble. */
const MIN_HOLD_MICROS = 900_000
/** A move takes at least this long, or it seems to jerk. */
const MIN_MOVE_MICROS = 500_000
/** At its fastest an eased move is this much faster than on average. */
const EASING_PEAK = 1.5

/** A stretch in which one place does for all samples. */
interface Hold {
  fromMicros: Micros
  toMicros: Micros
  at: Point
}

/**
 * A path that keeps a subject in view: still for as long as one place will do, then eased to the next; a path of its
 * own for each shot (`cuts`: first moments of shots, rising). Samples in order, recording time. Empty when the
 * subject was never found.
 */
export function followPath(
  samples: readonly FollowSample[],
  cuts: readonly Micros[],
  settings: FollowSettings,
): PathKey[] {
  const first = samples[0]
  if (!first) return []
  const starts = [first.micros, ...cuts.filter((c) => c > first.micros && c <= (samples.at(-1)?.micros ?? 0))]
  return starts.flatMap((start, n) => {
    const end = starts[n + 1] ?? Infinity
    const shot = filled(samples.filter((s) => s.micros >= start && s.micros < end))
    return shot ? keysOf(start, holdsOf(shot, settings.reach), settings.mostPerSecond) : []
  })
}

/** Samples with those between made up from their neighbours; null when there is no neighbour at all. */
function filled(samples: readonly FollowSample[]): { micros: Micros; at: Point }[] | null {
  const seen = samples.flatMap(({ micros, at }) => (at ? [{ micros, at }] : []))
  const [first] = seen
  if (!first) return null
  let last = first
  return samples.map(({ micros, at }) => (last = { micros, at: at ?? last.at }))
}

/** As few holds as will do: each is drawn out for as long as all of it lies within reach of one place. */
function holdsOf(shot: readonly { micros: Micros; at: Point }[], reach: Point): Hold[] {
  const holds: Hold[] = []
  let begin = 0
  while (begin < shot.length) {
    let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity]
    let end = begin
    for (; end < shot.length; end++) {
      const { at, micros } = shot[end] as { micros: Micros; at: Point }
      const wider = [Math.min(left, at.x), Math.max(right, at.x), Math.min(top, at.y), Math.max(bottom, at.y)] as const
      const longEnough = micros - (shot[begin]?.micros ?? 0) >= MIN_HOLD_MICROS
      if (longEnough && (wider[1] - wider[0] > 2 * reach.x || wider[3] - wider[2] > 2 * reach.y)) break
      ;[left, right, top, bottom] = wider
    }
    holds.push({
      fromMicros: shot[begin]?.micros ?? 0,
      toMicros: shot[end]?.micros ?? shot.at(-1)?.micros ?? 0,
      at: { x: (left + right) / 2, y: (top + bottom) / 2 },
    })
    begin = end
  }
  return holds
}

/**
 * The keys of one shot: a jump to its first hold, then for each change of hold the start and the end of a move about
 * the moment between them.
 */
function keysOf(start: Micros, holds: readonly Hold[], mostPerSecond: number): PathKey[] {
  const [first] = holds
  if (!first) return []
  const keys: PathKey[] = [{ micros: start, x: first.at.x, y: first.at.y, jump: true }]
  let here = first.at
  for (let n = 1; n < holds.length; n++) {
    const [before, hold] = [holds[n - 1] as Hold, holds[n] as Hold]
    // A move has the second half of one hold and the first half of the next to itself, so moves never run into each
    // other.
    const most = Math.min(hold.fromMicros - before.fromMicros, hold.toMicros - hold.fromMicros)
    const distance = Math.hypot(hold.at.x - here.x, hold.at.y - here.y)
    const wanted = Math.max(MIN_MOVE_MICROS, (EASING_PEAK * distance * 1e6) / mostPerSecond)
    const takes = Math.min(wanted, most)
    const share = distance === 0 ? 1 : Math.min(1, (mostPerSecond * takes) / 1e6 / EASING_PEAK / distance)
    const from = Math.max((keys.at(-1)?.micros ?? 0) + 1, Math.round(hold.fromMicros - takes / 2))
    const to = Math.max(from + 1, Math.round(hold.fromMicros + takes / 2))
    keys.push({ micros: from, x: here.x, y: here.y, jump: false })
    here = { x: here.x + (hold.at.x - here.x) * share, y: here.y + (hold.at.y - here.y) * share }
    keys.push({ micros: to, x: here.x, y: here.y, jump: false })
  }
  return keys
}
