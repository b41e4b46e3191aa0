import type { Point, Rect } from '../geometry/rect'
import type { Orientation } from './composition'

/**
 * What a rectangle shows of a picture: the place at its upper left corner, and the ways from there to those at its
 * upper right and lower left ones.
 */
export interface CropAxes {
  from: Point
  across: Point
  down: Point
}

/** What a rectangle shows of a crop that is flipped, then turned, to fill it. */
export function seenOf({ x, y, width, height }: Rect, { turn, flip }: Orientation): CropAxes {
  const placeAt = (a: number, b: number): Point => {
    const [u, v] = (
      [
        [a, b],
        [b, 1 - a],
        [1 - a, 1 - b],
        [1 - b, a],
      ] as const
    )[turn]
    return { x: x + (flip ? 1 - u : u) * width, y: y + v * height }
  }
  const [from, right, below] = [placeAt(0, 0), placeAt(1, 0), placeAt(0, 1)]
  return { from, across: wayTo(from, right), down: wayTo(from, below) }
}

const wayTo = (from: Point, to: Point): Point => ({ x: to.x - from.x, y: to.y - from.y })
