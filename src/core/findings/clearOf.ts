import { centreOf, intersection, type Rect } from '../geometry/rect'

/** Smaller crops than this share of what they were are no longer the same picture. */
const MIN_SHARE = 0.4

/**
 * The crop nearest to `crop` that shows nothing of `out` and stays inside `bounds`: moved sideways or up and down
 * where there is room, else zoomed in as little as it takes, of the same proportion. Null when that would be hardly
 * any of it. All in the same unit.
 */
export function clearOf(crop: Rect, bounds: Rect, out: Rect): Rect | null {
  if (!intersection(crop, out)) return crop
  const rooms: Rect[] = [
    { ...bounds, width: out.x - bounds.x },
    { ...bounds, x: out.x + out.width, width: bounds.x + bounds.width - out.x - out.width },
    { ...bounds, height: out.y - bounds.y },
    { ...bounds, y: out.y + out.height, height: bounds.y + bounds.height - out.y - out.height },
  ]
  const from = centreOf(crop)
  const options = rooms.flatMap((room) => {
    if (room.width <= 0 || room.height <= 0) return []
    const share = Math.min(1, room.width / crop.width, room.height / crop.height)
    if (share < MIN_SHARE) return []
    const size = { width: crop.width * share, height: crop.height * share }
    const along = (at: number, length: number, start: number, space: number) =>
      Math.min(Math.max(at - length / 2, start), start + space - length)
    const moved = {
      x: along(from.x, size.width, room.x, room.width),
      y: along(from.y, size.height, room.y, room.height),
      ...size,
    }
    const centre = centreOf(moved)
    return [{ moved, share, distance: Math.hypot(centre.x - from.x, centre.y - from.y) }]
  })
  // What is cut away by zooming weighs more than a shift: it is gone from the picture.
  const cost = ({ share, distance }: (typeof options)[number]) =>
    (1 - share) * 3 + distance / Math.max(crop.width, crop.height)
  return options.sort((a, b) => cost(a) - cost(b))[0]?.moved ?? null
}
