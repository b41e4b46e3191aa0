import type { Rect, Size } from '../geometry/rect'
import type { Outline } from '../model/outline'

/** The form, border and shadow of one picture; all lengths in canvas pixels. */
export interface PictureOutline {
  /** Corner radii: both 0 for a rectangle, half of either side for an ellipse. */
  radiusX: number
  radiusY: number
  border: { width: number; colour: string } | null
  shadow: { blur: number; drop: number; opacity: number } | null
}

/** A shadow falls by this share of its blur. */
const DROP = 0.35

/** An outline for a picture at `dest` on a canvas; null when there is nothing to see of it. */
export function pictureOutline({ mask, border, shadow }: Outline, dest: Rect, canvas: Size): PictureOutline | null {
  if (mask.kind === 'rectangle' && !border && !shadow) return null
  const radius = mask.kind === 'rounded' ? mask.radius * Math.min(dest.width, dest.height) : 0
  const ellipse = mask.kind === 'ellipse'
  return {
    radiusX: ellipse ? dest.width / 2 : radius,
    radiusY: ellipse ? dest.height / 2 : radius,
    border: border && { width: border.width * canvas.width, colour: border.colour },
    shadow: shadow && {
      blur: shadow.blur * canvas.width,
      drop: DROP * shadow.blur * canvas.width,
      opacity: shadow.opacity,
    },
  }
}
