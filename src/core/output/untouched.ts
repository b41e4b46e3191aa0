import type { Composition, Feed } from '../compose/composition'
import type { Rect, Size } from '../geometry/rect'
import type { RecordingId } from '../model/ids'

/**
 * What a composition shows of a recording whose frames are as large as it is, when that is a whole frame and nothing
 * else; null when it is anything more, or less.
 */
export function untouchedFeed({ size, steps }: Composition): Feed | null {
  const top = steps.at(-1)
  if (
    top?.kind !== 'picture' ||
    top.opacity !== 1 ||
    top.outline !== null ||
    top.orientation.turn !== 0 ||
    top.orientation.flip
  )
    return null
  return isWhole(top.crop, size) && isWhole(top.dest, size) ? top.feed : null
}

const isWhole = ({ x, y, width, height }: Rect, size: Size) =>
  x === 0 && y === 0 && width === size.width && height === size.height

/** Frames of output from `fromFrame` on that show whole frames of one recording, at recording times `shown`. */
export interface UntouchedStretch {
  recordingId: RecordingId
  fromFrame: number
  shown: number[]
}

/**
 * The stretches of a file's frames in which nothing is done to a recording. `isWanted`: for its frames are as large
 * as the file's, and can be taken over.
 */
export function untouchedStretches(
  frames: number,
  compositionOf: (n: number) => Composition,
  isWanted: (id: RecordingId) => boolean,
): UntouchedStretch[] {
  const stretches: UntouchedStretch[] = []
  let before: Feed | null = null
  for (let n = 0; n < frames; n++) {
    const feed = untouchedFeed(compositionOf(n))
    const wanted = feed && isWanted(feed.recordingId) ? feed : null
    if (wanted && before && wanted.recordingId === before.recordingId && wanted.lane === before.lane)
      stretches.at(-1)?.shown.push(wanted.micros)
    else if (wanted) stretches.push({ recordingId: wanted.recordingId, fromFrame: n, shown: [wanted.micros] })
    before = wanted
  }
  return stretches
}

/**
 * One coded frame in the order of decoding: recording time at which it is shown, and whether decoding can begin with
 * it.
 */
export interface CodedFrame {
  micros: number
  key: boolean
}

/**
 * Frames of output `fromFrame` up to, not including, `toFrame` that are coded frames as they stand: those from the
 * `first` on, in the order of decoding, each with the frame of output that it shows.
 */
export interface CopiedRun {
  fromFrame: number
  toFrame: number
  first: number
  frames: number[]
}

/** Copies of less would hardly be noticed, and each costs a key frame. */
const MIN_FRAMES = 24

/**
 * Which of some frames of output, `shown` at these recording times one after the other from `fromFrame` on, can be
 * taken over from `coded` frames: each run begins with a key frame and ends where all that was decoded has been
 * shown. Frames that are shown twice, or left out, end a run; so do groups of pictures that lean on those before.
 * `tolerance`: a frame counts as on screen so much before its time.
 */
export function copiedRuns(
  shown: readonly number[],
  fromFrame: number,
  coded: readonly CodedFrame[],
  tolerance: number,
): CopiedRun[] {
  const times = coded.map((c) => c.micros).sort((a, b) => a - b)
  const rank = new Map(times.map((t, i) => [t, i]))
  const runs: CopiedRun[] = []
  const onScreen = ranksOnScreen(shown, times, tolerance)
  for (let n = 0; n < shown.length;) {
    const start = onScreen[n] as number
    let steady = n + 1
    while (steady < shown.length && onScreen[steady] === (onScreen[steady - 1] as number) + 1) steady++
    const run = runWithin(coded, rank, start, start + steady - n)
    const offset = fromFrame + n - start
    if (run && run.ranks.length >= MIN_FRAMES)
      runs.push({
        fromFrame: offset + run.from,
        toFrame: offset + run.from + run.ranks.length,
        first: run.first,
        frames: run.ranks.map((r) => offset + r),
      })
    n = steady
  }
  return runs
}

/** For each time which of the frames, by rank, is on screen; −1 before the first. */
function ranksOnScreen(shown: readonly number[], times: readonly number[], tolerance: number): number[] {
  let at = -1
  return shown.map((t) => {
    while (at + 1 < times.length && (times[at + 1] as number) <= t + tolerance) at++
    return at
  })
}

/**
 * The longest stretch of frames, by rank, from a key frame on, that lies within `least` up to, not including, `end`,
 * and whose decoding needs and gives nothing else.
 */
function runWithin(
  coded: readonly CodedFrame[],
  rank: ReadonlyMap<number, number>,
  least: number,
  end: number,
): { from: number; first: number; ranks: number[] } | null {
  const ranks = coded.map((c) => rank.get(c.micros) as number)
  const first = coded.findIndex((c, i) => c.key && (ranks[i] as number) >= least && (ranks[i] as number) < end)
  if (first < 0) return null
  const from = ranks[first] as number
  let highest = from - 1
  let whole = 0
  for (let i = first; i < coded.length; i++) {
    const at = ranks[i] as number
    // A frame from before the key frame, or from beyond the end: what follows cannot be taken.
    if (at < from || at >= end) break
    highest = Math.max(highest, at)
    if (highest - from === i - first) whole = i + 1 - first
  }
  return { from, first, ranks: ranks.slice(first, first + whole) }
}
