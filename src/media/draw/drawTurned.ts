import type { Orientation } from '@/core/compose/composition'
import type { Rect } from '@/core/geometry/rect'
import type { Context2D } from './cropReader'

/** Draws a picture so that it fills `dest` once it has been flipped and turned. */
export function drawTurned(
  ctx: Context2D,
  { turn, flip }: Orientation,
  dest: Rect,
  draw: (ctx: Context2D, dest: Rect) => void,
): void {
  if (turn === 0 && !flip) return draw(ctx, dest)
  const [width, height] = turn % 2 === 0 ? [dest.width, dest.height] : [dest.height, dest.width]
  ctx.save()
  ctx.translate(dest.x + dest.width / 2, dest.y + dest.height / 2)
  ctx.rotate((turn * Math.PI) / 2)
  if (flip) ctx.scale(-1, 1)
  draw(ctx, { x: -width / 2, y: -height / 2, width, height })
  ctx.restore()
}
