import type { Stillness } from './stillness'

/**
 * Straight lines that hold still: for every column (or row), where along it brightness steps, frame after frame, more
 * than a few pixels to either side. Answers how much of any stretch is such a line in constant time.
 */
export class StillLines {
  readonly data: StillLinesData

  /**
   * Of what was seen, along `axis` (x: upright lines, one for every column; y: level ones); or again what another has
   * found.
   */
  constructor(seen: Stillness, axis: 'x' | 'y')
  constructor(found: StillLinesData)
  constructor(from: Stillness | StillLinesData, axis: 'x' | 'y' = 'x') {
    this.data = 'before' in from ? from : countLines(from, axis)
  }

  /** Share 0..1 of `line` between `from` and `to` (end-exclusive) that is one. */
  share(line: number, from: number, to: number): number {
    if (to <= from) return 0
    const { before, stride } = this.data
    const base = line * stride
    return ((before[base + to] as number) - (before[base + from] as number)) / (to - from)
  }

  /** The best of `line` and its neighbours: lines of real pictures waver. */
  shareNear(line: number, from: number, to: number, reach = 1): number {
    let best = 0
    for (let l = Math.max(0, line - reach); l <= line + reach; l++) best = Math.max(best, this.share(l, from, to))
    return best
  }
}

/** `before[line * stride + at]`: how many of the first `at` places along `line` belong to it. */
export interface StillLinesData {
  before: Uint16Array
  stride: number
}

/** Brightness steps at a line in at least this share of all frames, */
const MIN_FRAMES = 0.5
/** and in this share more than a few pixels away. */
const MORE_FRAMES = 0.25

/** Lines past the last that may be asked for: nothing is there. */
const SPARE_LINES = 24

function countLines({ width, height, frames, stepsX, stepsY }: Stillness, axis: 'x' | 'y'): StillLinesData {
  const [lines, length] = axis === 'x' ? [width, height] : [height, width]
  const [acrossBy, alongBy] = axis === 'x' ? [1, width] : [width, 1]
  const steps = axis === 'x' ? stepsX : stepsY
  const [enough, more] = [frames * MIN_FRAMES, frames * MORE_FRAMES]
  const stride = length + 1
  const before = new Uint16Array((lines + SPARE_LINES) * stride)
  const place = (line: number) => Math.min(Math.max(line, 1), lines - 1) * acrossBy
  for (let line = 1; line < lines; line++) {
    const around = [-5, -4, -3, 3, 4, 5].map((by) => place(line + by)) as [
      number,
      number,
      number,
      number,
      number,
      number,
    ]
    let count = 0
    for (let at = 0; at < length; at++) {
      const i = at * alongBy
      const here = steps[line * acrossBy + i] as number
      if (here >= enough) {
        const near = (offset: number) => steps[offset + i] as number
        const beside =
          Math.max(
            near(around[0]) + near(around[1]) + near(around[2]),
            near(around[3]) + near(around[4]) + near(around[5]),
          ) / 3
        if (here - beside >= more) count++
      }
      before[line * stride + at + 1] = count
    }
  }
  return { before, stride }
}
