/**
 * An axis-aligned rectangle. The unit (fractions of a frame, pixels of a frame, pixels of a canvas) is the holder's.
 */
export interface Rect {
  x: number
  y: number
  width: number
  height: number
}

export interface Size {
  width: number
  height: number
}

export interface Point {
  x: number
  y: number
}

export function centreOf(rect: Rect): Point {
  return { x: rect.x + rect.width / 2, y: rect.y + rect.height / 2 }
}

export function scaleRect(rect: Rect, sx: number, sy: number = sx): Rect {
  return { x: rect.x * sx, y: rect.y * sy, width: rect.width * sx, height: rect.height * sy }
}

/** Moves `rect` by the least amount that puts it inside `bounds`; one too large keeps its size and is centred. */
export function pushInside(rect: Rect, bounds: Rect): Rect {
  const along = (start: number, length: number, from: number, room: number) =>
    length > room ? from + (room - length) / 2 : Math.min(Math.max(start, from), from + room - length)
  return {
    ...rect,
    x: along(rect.x, rect.width, bounds.x, bounds.width),
    y: along(rect.y, rect.height, bounds.y, bounds.height),
  }
}

/** {@link pushInside}, of as much of `rect` as `bounds` has room for. */
export function fitInside(rect: Rect, bounds: Rect): Rect {
  return pushInside(
    { ...rect, width: Math.min(rect.width, bounds.width), height: Math.min(rect.height, bounds.height) },
    bounds,
  )
}

/** Whether `inner` lies inside `outer`, allowing `slack` on every side. */
export function contains(outer: Rect, inner: Rect, slack = 1e-9): boolean {
  return (
    inner.x >= outer.x - slack &&
    inner.y >= outer.y - slack &&
    inner.x + inner.width <= outer.x + outer.width + slack &&
    inner.y + inner.height <= outer.y + outer.height + slack
  )
}

export function areaOf({ width, height }: Size): number {
  return width * height
}

/** What two rectangles share; null when they do not overlap. */
export function intersection(a: Rect, b: Rect): Rect | null {
  const x = Math.max(a.x, b.x)
  const y = Math.max(a.y, b.y)
  const width = Math.min(a.x + a.width, b.x + b.width) - x
  const height = Math.min(a.y + a.height, b.y + b.height) - y
  return width > 0 && height > 0 ? { x, y, width, height } : null
}

/** Where `rect` comes to lie when `from`, in which it lies, becomes `to`. */
export function carriedAlong(rect: Rect, from: Rect, to: Rect): Rect {
  const [sx, sy] = [to.width / from.width, to.height / from.height]
  return {
    x: to.x + (rect.x - from.x) * sx,
    y: to.y + (rect.y - from.y) * sy,
    width: rect.width * sx,
    height: rect.height * sy,
  }
}

/** The smallest rectangle that holds both. */
export function unionOf(a: Rect, b: Rect): Rect {
  const x = Math.min(a.x, b.x)
  const y = Math.min(a.y, b.y)
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  }
}

/** The rectangle between two corners, whichever they are, as far as it lies in a frame of size `within`. */
export function rectBetween(a: Point, b: Point, within: Size): Rect {
  const [x0, x1] = [Math.max(0, Math.min(a.x, b.x)), Math.min(within.width, Math.max(a.x, b.x))]
  const [y0, y1] = [Math.max(0, Math.min(a.y, b.y)), Math.min(within.height, Math.max(a.y, b.y))]
  return { x: x0, y: y0, width: Math.max(0, x1 - x0), height: Math.max(0, y1 - y0) }
}

/** What two rectangles have in common, of all that they cover. */
export function shareOfBoth(a: Rect, b: Rect): number {
  const both = intersection(a, b)
  const common = both ? areaOf(both) : 0
  return common / (areaOf(a) + areaOf(b) - common)
}
