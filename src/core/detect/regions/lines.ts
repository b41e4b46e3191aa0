import type { Stillness } from './stillness'

/**
 * Straight lines that hold still: for every column (or row), where along it brightness steps, frame after frame, more than a few
 * pixels to either side. Answers how much of any stretch is such a line in constant time.
 */
export class StillLines {
  /** `before[line][at]`: how many of the first `at` places along `line` belong to it. */
  private readonly before: Uint16Array
  private readonly stride: number

  /** `axis` x: upright lines, one for every column and one past the last; y: level lines. */
  constructor(
    { width, height, frames, stepsX, stepsY }: Stillness,
    axis: 'x' | 'y',
  ) {
    const [lines, length] = axis === 'x' ? [width, height] : [height, width]
    const [acrossBy, alongBy] = axis === 'x' ? [1, width] : [width, 1]
    const steps = axis === 'x' ? stepsX : stepsY
    const [enough, more] = [frames * LEAST_FRAMES, frames * MORE_FRAMES]
    this.stride = length + 1
    this.before = new Uint16Array((lines + 1) * this.stride)
    const place = (line: number) => Math.min(Math.max(line, 1), lines - 1) * acrossBy
    for (let line = 1; line < lines; line++) {
      const around = [-5, -4, -3, 3, 4, 5].map((by) => place(line + by)) as [number, number, number, number, number, number]
      let count = 0
      const base = line * this.stride
      for (let at = 0; at < length; at++) {
        const i = at * alongBy
        const here = steps[line * acrossBy + i] as number
        if (here >= enough) {
          const near = (offset: number) => steps[offset + i] as number
          const beside = Math.max(near(around[0]) + near(around[1]) + near(around[2]), near(around[3]) + near(around[4]) + near(around[5])) / 3
          if (here - beside >= more) count++
        }
        this.before[base + at + 1] = count
      }
    }
  }

  /** Share 0..1 of `line` between `from` and `to` (end-exclusive) that is one. Looks a pixel to either side: lines of real pictures waver. */
  share(line: number, from: number, to: number): number {
    if (to <= from) return 0
    const base = line * this.stride
    return ((this.before[base + to] as number) - (this.before[base + from] as number)) / (to - from)
  }

  /** The best of `line` and its neighbours. */
  shareNear(line: number, from: number, to: number, reach = 1): number {
    let best = 0
    for (let l = Math.max(0, line - reach); l <= line + reach; l++) best = Math.max(best, this.share(l, from, to))
    return best
  }
}

/** Brightness steps at a line in at least this share of all frames, */
const LEAST_FRAMES = 0.5
/** and in this share more than a few pixels away. */
const MORE_FRAMES = 0.25
