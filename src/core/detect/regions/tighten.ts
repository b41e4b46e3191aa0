import type { Rect } from '../../geometry/rect'
import { STILL_RANGE } from './background'
import type { StillLines } from './lines'
import type { Stillness } from './stillness'

/** A border is at most this wide, px of a frame 1080 high; wider in proportion in larger ones. */
const MAX_BORDER = 12

/** A border's inner edge is a line along at least this share of the side. */
const MIN_COVER = 0.45

/** Darker than this all along, and still, a row or column is a black bar. */
const BLACK = 28

/**
 * Each side of `rect` (whole pixels) moved inwards past black and past a border to the first pixel of the picture;
 * where there is neither, it stays. A border ends at the last line near the side that runs along it.
 */
export function tighten(
  rect: Rect,
  stillness: Stillness,
  upright: StillLines,
  level: StillLines,
  reach = borderReach(stillness),
): Rect {
  const inset = (side: Side, from: number, to: number) =>
    pastBorder(side, from + reach, to - reach, pastBlack(side, from, to, stillness), reach, stillness)
  const [right, bottom] = [rect.x + rect.width, rect.y + rect.height]
  const x0 = inset({ lines: upright, axis: 'x', at: rect.x, by: 1, most: rect.width / 3 }, rect.y, bottom)
  const x1 = inset({ lines: upright, axis: 'x', at: right, by: -1, most: rect.width / 3 }, rect.y, bottom)
  const y0 = inset({ lines: level, axis: 'y', at: rect.y, by: 1, most: rect.height / 3 }, rect.x, right)
  const y1 = inset({ lines: level, axis: 'y', at: bottom, by: -1, most: rect.height / 3 }, rect.x, right)
  return { x: x0, y: y0, width: x1 - x0, height: y1 - y0 }
}

function borderReach({ height }: Stillness): number {
  return Math.max(MAX_BORDER, Math.round((MAX_BORDER * height) / 1080)) + 1
}

/** One side of a rectangle: the line it lies on, which way is inwards, and how far in it may go. */
interface Side {
  lines: StillLines
  axis: 'x' | 'y'
  at: number
  by: 1 | -1
  most: number
}

function pastBlack({ axis, at, by, most }: Side, from: number, to: number, { width, range, mean }: Stillness): number {
  const [across, along] = axis === 'x' ? [1, width] : [width, 1]
  let black = 0
  for (; black < most; black++) {
    // The pixel on the inner side of the line `at + black`.
    const line = by > 0 ? at + black : at - black - 1
    let count = 0
    for (let t = from; t < to; t++) {
      const i = line * across + t * along
      if ((mean[i] as number) < BLACK && (range[i] as number) <= STILL_RANGE) count++
    }
    if (count < 0.985 * (to - from)) break
  }
  return at + by * black
}

function pastBorder(
  { lines, axis, by }: Side,
  from: number,
  to: number,
  start: number,
  reach: number,
  stillness: Stillness,
): number {
  if (to - from < 2 * reach) return start
  const shares = Array.from({ length: reach + 1 }, (_, n) => lines.share(start + n * by, from, to))
  const least = Math.max(MIN_COVER, 0.5 * Math.max(...shares))
  const last = shares.findLastIndex((s) => s >= least)
  if (last < 0) return start
  // Coding spreads an edge over neighbouring places: the steepest of them is it, and half-tones beside it are not
  // picture yet.
  const near = [last - 1, last, last + 1].filter((n) => n >= 0)
  const steps = near.map((n) => meanStep(start + n * by, from, to, axis, stillness))
  const steepest = Math.max(...steps)
  return start + by * Math.max(...near.filter((_, k) => (steps[k] as number) >= 0.35 * steepest))
}

/** The mean step of brightness over a line, from what is usual on one side to what is usual on the other. */
function meanStep(line: number, from: number, to: number, axis: 'x' | 'y', { width, height, mean }: Stillness): number {
  const [across, along, lines] = axis === 'x' ? [1, width, width] : [width, 1, height]
  if (line < 1 || line >= lines) return 0
  let sum = 0
  for (let t = from; t < to; t++) {
    const i = line * across + t * along
    sum += Math.abs((mean[i] as number) - (mean[i - across] as number))
  }
  return sum / (to - from)
}
