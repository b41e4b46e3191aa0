import { areaOf, type Rect } from '../../geometry/rect'
import { STILL_RANGE } from './background'
import type { Motion } from './motion'
import type { Stillness } from './stillness'

/** A line of pixels belongs to the part when this share of it, within the part's reach, has moved. */
const MIN_OF_LINE = 0.12
/** The part is at least and at most this share of the picture, and most of what moves moves in it. */
const MIN_AREA = 0.04
const MAX_AREA = 0.6
const MIN_INSIDE = 0.92
/** A part is a place, not scattered dots: this share of it has moved. */
const MIN_FILLED = 0.3

/**
 * The one rectangle in which nearly everything moves while the rest of `within`, on three sides of it at least, holds
 * still; null where there is none.
 */
export function movingPart(within: Rect, { width, range }: Stillness, motion: Motion): Rect | null {
  const moves = (x: number, y: number) => (range[y * width + x] as number) > 2 * STILL_RANGE
  const rows = new Float64Array(within.height)
  const columns = new Float64Array(within.width)
  let all = 0
  for (let y = 0; y < within.height; y++)
    for (let x = 0; x < within.width; x++)
      if (moves(within.x + x, within.y + y)) {
        rows[y] = (rows[y] as number) + 1
        columns[x] = (columns[x] as number) + 1
        all++
      }
  if (all === 0) return null
  const [top, bottom] = extent(rows)
  const [left, right] = extent(columns)
  const part = { x: within.x + left, y: within.y + top, width: right - left, height: bottom - top }
  // A meadow under a sky reaches from side to side; a board lies on a desk.
  const touched = [left === 0, top === 0, right === within.width, bottom === within.height].filter(Boolean).length
  if (touched > 1) return null
  const share = areaOf(part) / areaOf(within)
  if (share < MIN_AREA || share > MAX_AREA) return null
  let inside = 0
  for (let y = part.y; y < part.y + part.height; y++)
    for (let x = part.x; x < part.x + part.width; x++) if (moves(x, y)) inside++
  return inside >= all * MIN_INSIDE && inside >= areaOf(part) * MIN_FILLED && motion.within(part).most > 0 ? part : null
}

/** From the first to after the last line in which enough moves, against the liveliest. */
function extent(lines: Float64Array): [number, number] {
  const most = lines.reduce((a, b) => Math.max(a, b), 0)
  let from = 0
  let to = lines.length
  while (from < to && (lines[from] as number) < most * MIN_OF_LINE) from++
  while (to > from && (lines[to - 1] as number) < most * MIN_OF_LINE) to--
  return [from, to]
}
