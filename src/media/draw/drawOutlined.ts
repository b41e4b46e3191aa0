import type { PictureOutline } from '@/core/compose/pictureOutline'
import type { Rect } from '@/core/geometry/rect'
import type { Context2D } from './cropReader'

/**
 * Draws a picture at `dest`, cut to its form, with its shadow under it and its border over it. `scale`: pixels of
 * this canvas for each of the composition's.
 */
export function drawOutlined(
  ctx: Context2D,
  outline: PictureOutline | null,
  dest: Rect,
  scale: number,
  drawPicture: (dest: Rect) => void,
): void {
  if (!outline) return drawPicture(dest)
  const { x, y, width, height } = dest
  const form = new Path2D()
  const radii = { x: Math.min(width / 2, outline.radiusX * scale), y: Math.min(height / 2, outline.radiusY * scale) }
  form.roundRect(x, y, width, height, radii)
  if (outline.shadow) {
    ctx.save()
    ctx.shadowColor = `rgba(0, 0, 0, ${outline.shadow.opacity})`
    ctx.shadowBlur = outline.shadow.blur * scale
    ctx.shadowOffsetY = outline.shadow.drop * scale
    ctx.fillStyle = '#000000'
    ctx.fill(form)
    ctx.restore()
  }
  ctx.save()
  ctx.clip(form)
  drawPicture(dest)
  if (outline.border) {
    ctx.strokeStyle = outline.border.colour
    // Half of a line lies outside the form and is cut off.
    ctx.lineWidth = 2 * outline.border.width * scale
    ctx.stroke(form)
  }
  ctx.restore()
}
