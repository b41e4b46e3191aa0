import { centreOf, pushInside, type Point, type Rect, type Size } from './rect'

/** The largest size of proportion `aspect` (width / height) that fits into `room`. */
export function largestWithin(room: Size, aspect: number): Size {
  return room.width / room.height > aspect
    ? { width: room.height * aspect, height: room.height }
    : { width: room.width, height: room.width / aspect }
}

/** `room` shrunk to proportion `aspect`, in its middle: how a whole picture is fitted without stretching. */
export function fitWhole(room: Rect, aspect: number): Rect {
  const size = largestWithin(room, aspect)
  const centre = centreOf(room)
  return { x: centre.x - size.width / 2, y: centre.y - size.height / 2, ...size }
}

/**
 * The crop of proportion `aspect` that fills a panel from `bounds`: the largest one, divided by `zoom` (≥ 1), centred
 * on `focus` and pushed back inside `bounds`. Never reaches beyond `bounds`.
 */
export function cropToFill(bounds: Rect, aspect: number, focus: Point, zoom = 1): Rect {
  const largest = largestWithin(bounds, aspect)
  const size = { width: largest.width / zoom, height: largest.height / zoom }
  return pushInside({ x: focus.x - size.width / 2, y: focus.y - size.height / 2, ...size }, bounds)
}
