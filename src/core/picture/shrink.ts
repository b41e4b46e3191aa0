import type { Size } from '../geometry/rect'
import { CHROMA_MIDDLE, codingFactors, type Planes420, type YuvCoding } from './halve'

/** Of what becomes one pixel, so many samples each way are looked at, at most. */
const MOST_LUMA = 8
const MOST_CHROMA = 4

/**
 * A 4:2:0 picture of `size` brought down to RGBA `out[to.height][to.width]` for a machine to look at: each pixel is the
 * mean of samples spread evenly over what it covers, so that a large picture costs little more than a small one.
 */
export function shrinkToRgba(
  { bytes, y, u, v }: Planes420,
  size: Size,
  coding: YuvCoding,
  to: Size,
  out: Uint8ClampedArray,
): void {
  const half = { width: Math.ceil(size.width / 2), height: Math.ceil(size.height / 2) }
  const luma = { x: placesOf(size.width, to.width, MOST_LUMA), y: placesOf(size.height, to.height, MOST_LUMA) }
  const chroma = { x: placesOf(half.width, to.width, MOST_CHROMA), y: placesOf(half.height, to.height, MOST_CHROMA) }
  const { scale, black, rv, gu, gv, bu } = codingFactors(coding)
  let at = 0
  for (let row = 0; row < to.height; row++)
    for (let column = 0; column < to.width; column++) {
      const lit = scale * (meanAt(bytes, y, luma, column, row) - black)
      const cb = meanAt(bytes, u, chroma, column, row) - CHROMA_MIDDLE
      const cr = meanAt(bytes, v, chroma, column, row) - CHROMA_MIDDLE
      out[at++] = lit + rv * cr
      out[at++] = lit - gu * cb - gv * cr
      out[at++] = lit + bu * cb
      out[at++] = 255
    }
}

/** Places along a side, `most` at most, that stand for each pixel of the smaller one. */
function placesOf(from: number, to: number, most: number): number[][] {
  return Array.from({ length: to }, (_, i) => {
    const [first, last] = [(i * from) / to, ((i + 1) * from) / to]
    const count = Math.max(1, Math.min(most, Math.floor(last - first)))
    return Array.from({ length: count }, (_, n) =>
      Math.min(from - 1, Math.floor(first + ((n + 0.5) * (last - first)) / count)),
    )
  })
}

function meanAt(
  bytes: Uint8Array,
  { offset, stride, step }: Planes420['y'],
  places: { x: number[][]; y: number[][] },
  column: number,
  row: number,
): number {
  const xs = places.x[column] as number[]
  const ys = places.y[row] as number[]
  let sum = 0
  for (let j = 0; j < ys.length; j++) {
    const line = offset + (ys[j] as number) * stride
    for (let i = 0; i < xs.length; i++) sum += bytes[line + (xs[i] as number) * step] as number
  }
  return sum / (xs.length * ys.length)
}
