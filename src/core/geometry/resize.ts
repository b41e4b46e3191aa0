import { compassShare } from './compass'
import { centreOf, pushInside, type Rect } from './rect'

/** An edge or corner by compass point. */
export type Grip = 'n' | 's' | 'e' | 'w' | 'ne' | 'nw' | 'se' | 'sw'

export const GRIPS: readonly Grip[] = ['nw', 'n', 'ne', 'e', 'se', 's', 'sw', 'w']

export interface ResizeOptions {
  /** Never grow beyond this. */
  bounds: Rect
  /** Smallest width and height. */
  least: number
  /** Hold this proportion (width / height), or null for free. */
  aspect?: number | null
  /** Keep the centre where it is: the opposite edge moves the other way. */
  fromCentre?: boolean
}

/** A way held to the one of its two directions in which it goes farther. */
export function straightened(dx: number, dy: number): { dx: number; dy: number } {
  return Math.abs(dx) >= Math.abs(dy) ? { dx, dy: 0 } : { dx: 0, dy }
}

/** `rect` moved by (dx, dy), stopped at the edges of `bounds`. */
export function moveRect(rect: Rect, dx: number, dy: number, bounds: Rect): Rect {
  return pushInside({ ...rect, x: rect.x + dx, y: rect.y + dy }, bounds)
}

/**
 * `rect` with one edge or corner dragged by (dx, dy); all in the same unit. The opposite edge stays unless
 * `fromCentre`.
 */
export function resizeRect(rect: Rect, grip: Grip, dx: number, dy: number, options: ResizeOptions): Rect {
  const { bounds, least, fromCentre = false, aspect = null } = options
  const horizontal = 2 * compassShare(grip).x - 1
  const vertical = 2 * compassShare(grip).y - 1
  const factor = fromCentre ? 2 : 1
  let width = Math.max(least, rect.width + horizontal * dx * factor)
  let height = Math.max(least, rect.height + vertical * dy * factor)
  if (aspect !== null) {
    if (horizontal === 0 || (vertical !== 0 && height * aspect > width)) width = height * aspect
    else height = width / aspect
  }
  const centre = centreOf(rect)
  const room = {
    width: roomAlong(
      rect.x,
      rect.width,
      centre.x,
      bounds.x,
      bounds.width,
      fromCentre || horizontal === 0 ? 0 : horizontal,
    ),
    height: roomAlong(
      rect.y,
      rect.height,
      centre.y,
      bounds.y,
      bounds.height,
      fromCentre || vertical === 0 ? 0 : vertical,
    ),
  }
  if (aspect === null) {
    width = Math.min(width, horizontal === 0 ? rect.width : room.width)
    height = Math.min(height, vertical === 0 ? rect.height : room.height)
  } else {
    const shrink = Math.min(1, room.width / width, room.height / height)
    width *= shrink
    height *= shrink
  }
  return {
    x: placeAlong(rect.x, rect.width, centre.x, width, fromCentre ? 0 : horizontal),
    y: placeAlong(rect.y, rect.height, centre.y, height, fromCentre ? 0 : vertical),
    width,
    height,
  }
}

function roomAlong(start: number, length: number, centre: number, from: number, room: number, side: number): number {
  if (side > 0) return from + room - start
  if (side < 0) return start + length - from
  return 2 * Math.min(centre - from, from + room - centre)
}

function placeAlong(start: number, length: number, centre: number, size: number, side: number): number {
  if (side > 0) return start
  if (side < 0) return start + length - size
  return centre - size / 2
}
