import type { Size } from '@/core/geometry/rect'
import type { Context2D } from './cropReader'

/**
 * Spare canvases for each canvas that is drawn on, by what they are for: never nested, and drawn over as soon as they
 * are made.
 */
const spare = new WeakMap<Context2D, Map<string, OffscreenCanvasRenderingContext2D>>()

/**
 * A canvas of a size to draw on aside from `ctx`; what was on it before is still there. `alpha`: always the same for
 * one purpose.
 */
export function spareCanvas(
  ctx: Context2D,
  purpose: string,
  { width, height }: Size,
  alpha = false,
): OffscreenCanvasRenderingContext2D {
  const own = spare.get(ctx) ?? new Map<string, OffscreenCanvasRenderingContext2D>()
  spare.set(ctx, own)
  const cached = own.get(purpose)
  if (cached && cached.canvas.width === width && cached.canvas.height === height) return cached
  const made = new OffscreenCanvas(width, height).getContext('2d', { alpha })
  if (!made) throw new Error('no 2D canvas')
  own.set(purpose, made)
  return made
}
