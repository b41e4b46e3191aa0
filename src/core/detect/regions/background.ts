import type { Stillness } from './stillness'
import { SummedArea } from '../../geometry/summedArea'

/**
 * A pixel that was never more than this brighter than at its darkest holds still; coding makes flat areas flicker a
 * little.
 */
export const STILL_RANGE = 14

/** How far from the background's brightness still counts as background. */
const TOLERANCE = 7

/** A background covers at least this share of the frame. */
const MIN_SHARE = 0.006

/** The commonest colour darker than this is tried too: bars and gutters may be narrow. */
const BLACK = 24

/** The plain colour around and between pictures. */
export class Background extends SummedArea {
  private constructor(
    stillness: Stillness,
    readonly luma: number,
  ) {
    const { range, mean } = stillness
    super(stillness, (i) => (range[i] as number) <= STILL_RANGE && Math.abs((mean[i] as number) - luma) <= TOLERANCE)
  }

  /** One for each plain colour that much of the frame holds still in, commonest first; at most `most`. */
  static candidates(stillness: Stillness, most = 12): Background[] {
    const { range, mean } = stillness
    const counts = new Uint32Array(256)
    for (let i = 0; i < range.length; i++)
      if ((range[i] as number) <= STILL_RANGE) counts[mean[i] as number] = (counts[mean[i] as number] as number) + 1
    const around = (luma: number) =>
      counts.subarray(Math.max(0, luma - TOLERANCE), luma + TOLERANCE + 1).reduce((a, b) => a + b, 0)
    const found: number[] = []
    const least = range.length * MIN_SHARE
    const total = Array.from(counts.keys(), around)
    const order = Array.from(counts.keys()).sort(
      (a, b) => (total[b] as number) - (total[a] as number) || (counts[b] as number) - (counts[a] as number),
    )
    const dark = counts.subarray(0, BLACK)
    for (const luma of [...order, dark.indexOf(Math.max(...dark))]) {
      if (around(luma) >= least && found.every((f) => Math.abs(f - luma) > TOLERANCE)) found.push(luma)
    }
    return found.slice(0, most).map((luma) => new Background(stillness, luma))
  }
}
