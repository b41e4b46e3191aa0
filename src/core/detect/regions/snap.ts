import type { Grip } from '../../geometry/resize'
import type { Rect } from '../../geometry/rect'
import type { StillLines } from './lines'

/** An edge snaps to what is a line along at least this share of it. */
const MIN_COVER = 0.5

export interface SnapLines {
  upright: StillLines
  level: StillLines
}

/**
 * `rect` (px of the frame) with the edges that `grip` moves put onto lines of the picture within `reach` px, where
 * there are any.
 */
export function snapEdges(rect: Rect, grip: Grip, { upright, level }: SnapLines, reach: number): Rect {
  let [x0, x1, y0, y1] = [rect.x, rect.x + rect.width, rect.y, rect.y + rect.height].map(Math.round) as [
    number,
    number,
    number,
    number,
  ]
  if (grip.includes('w')) x0 = nearestLine(upright, x0, y0, y1, reach)
  if (grip.includes('e')) x1 = nearestLine(upright, x1, y0, y1, reach)
  if (grip.includes('n')) y0 = nearestLine(level, y0, x0, x1, reach)
  if (grip.includes('s')) y1 = nearestLine(level, y1, x0, x1, reach)
  return { x: x0, y: y0, width: x1 - x0, height: y1 - y0 }
}

/** The best line within reach; of two as good the nearer. */
function nearestLine(lines: StillLines, at: number, from: number, to: number, reach: number): number {
  let best = MIN_COVER
  let found = at
  for (let by = 0; by <= reach; by++)
    for (const line of by === 0 ? [at] : [at - by, at + by]) {
      if (line < 1) continue
      const share = lines.share(line, from, to) - by * 0.004
      if (share > best) [best, found] = [share, line]
    }
  return found
}
