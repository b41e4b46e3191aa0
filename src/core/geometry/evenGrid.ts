import type { Rect, Size } from './rect'

/** The nearest even integer; 4:2:0 video keeps one colour sample for every 2 × 2 pixels. */
export function toEven(value: number): number {
  return 2 * Math.round(value / 2)
}

/** A frame-fraction rectangle as pixels of `frame` on the even grid, at least 2 × 2 and inside the frame. */
export function toEvenPixels(fractions: Rect, frame: Size): Rect {
  const along = (start: number, length: number, room: number) => {
    const last = 2 * Math.floor(room / 2)
    const from = Math.min(Math.max(toEven(start * room), 0), Math.max(0, last - 2))
    const to = Math.min(Math.max(toEven((start + length) * room), from + 2), last)
    return { from, length: to - from }
  }
  const x = along(fractions.x, fractions.width, frame.width)
  const y = along(fractions.y, fractions.height, frame.height)
  return { x: x.from, y: y.from, width: x.length, height: y.length }
}

/** Pixels of a frame as fractions of it. */
export function toFractions(pixels: Rect, frame: Size): Rect {
  return {
    x: pixels.x / frame.width,
    y: pixels.y / frame.height,
    width: pixels.width / frame.width,
    height: pixels.height / frame.height,
  }
}
