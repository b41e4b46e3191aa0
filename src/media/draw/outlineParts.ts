import type { PictureOutline } from '@/core/compose/pictureOutline'
import type { Rect, Size } from '@/core/geometry/rect'
import type { Context2D } from './cropReader'
import { drawOutlined } from './drawOutlined'
import type { Overlays } from './overlays'

/**
 * What lies under, in and over a picture that is cut to a form; null where there is nothing of it. The mask's alpha
 * is how much of the picture is seen.
 */
export interface OutlineParts<T> {
  shadow: T | null
  mask: T | null
  border: T | null
}

/**
 * The parts of an outline on a ground of size `out`, each drawn by the canvas once. `scale`: pixels there for each of
 * the composition's.
 */
export function outlineParts<T>(
  overlays: Overlays<T>,
  out: Size,
  outline: PictureOutline | null,
  { dest, scale, opacity }: { dest: Rect; scale: number; opacity: number },
): OutlineParts<T> {
  const part = (name: string, draw: (ctx: Context2D) => void) =>
    overlays.of(`${name} ${JSON.stringify([outline, dest, opacity, scale])}`, out, (ctx) => {
      ctx.globalAlpha = opacity
      draw(ctx)
      ctx.globalAlpha = 1
    })
  const nothing = () => {}
  return {
    shadow: outline?.shadow
      ? part('shadow', (ctx) => drawOutlined(ctx, { ...outline, border: null }, dest, scale, nothing))
      : null,
    mask: part('mask', (ctx) =>
      drawOutlined(
        ctx,
        outline && { ...outline, shadow: null, border: null },
        dest,
        scale,
        ({ x, y, width, height }) => {
          ctx.fillStyle = '#ffffff'
          ctx.fillRect(x, y, width, height)
        },
      ),
    ),
    border: outline?.border
      ? part('border', (ctx) => drawOutlined(ctx, { ...outline, shadow: null }, dest, scale, nothing))
      : null,
  }
}
