import { toEven } from '../geometry/evenGrid'
import type { Rect, Size } from '../geometry/rect'
import type { Area, Arrangement } from '../model/layout'
import { solve } from './solve'

/**
 * Where words go over the picture when a layout has no area for them: inside what feeds leave free. Fractions of the
 * canvas, by how it stands.
 */
const OVER_PICTURE: Readonly<Record<Area['kind'], { upright: Rect; even: Rect; lying: Rect }>> = {
  titleArea: {
    upright: { x: 0.08, y: 0.09, width: 0.84, height: 0.16 },
    even: { x: 0.08, y: 0.06, width: 0.84, height: 0.2 },
    lying: { x: 0.12, y: 0.06, width: 0.76, height: 0.2 },
  },
  captionArea: {
    upright: { x: 0.14, y: 0.62, width: 0.72, height: 0.17 },
    even: { x: 0.1, y: 0.66, width: 0.8, height: 0.2 },
    lying: { x: 0.18, y: 0.7, width: 0.64, height: 0.2 },
  },
}

/** Words keep this share of their area's shorter side clear of its edges. */
const MARGIN = 0.06

/**
 * The place for a kind of words on a canvas. The first of a layout's areas for it, or else a place over the picture.
 */
export function wordArea(kind: Area['kind'], arrangement: Arrangement, canvas: Size): Rect {
  return ownArea(kind, arrangement, canvas) ?? usualArea(kind, canvas)
}

/** The first of an arrangement's areas for a kind of words, without its margin; null where it has none. */
export function ownArea(kind: Area['kind'], arrangement: Arrangement, canvas: Size): Rect | null {
  const own = solve(arrangement, canvas).areas.find((a) => a.kind === kind)?.rect
  if (!own) return null
  const margin = MARGIN * Math.min(own.width, own.height)
  return { x: own.x + margin, y: own.y + margin, width: own.width - 2 * margin, height: own.height - 2 * margin }
}

/** Where a kind of words goes over a picture when nothing speaks against it. */
export function usualArea(kind: Area['kind'], canvas: Size): Rect {
  const part = OVER_PICTURE[kind][standingOf(canvas)]
  return {
    x: toEven(part.x * canvas.width),
    y: toEven(part.y * canvas.height),
    width: toEven(part.width * canvas.width),
    height: toEven(part.height * canvas.height),
  }
}

/** How a canvas stands: clearly higher than wide, about as high as wide, or clearly wider. */
export function standingOf({ width, height }: Size): 'upright' | 'even' | 'lying' {
  const proportion = width / height
  if (proportion < 0.75) return 'upright'
  return proportion > 1.34 ? 'lying' : 'even'
}
