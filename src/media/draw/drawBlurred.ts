import type { Rect, Size } from '@/core/geometry/rect'
import type { Context2D } from './cropReader'
import { spareCanvas } from './spareCanvas'

/**
 * The blurred copy is made this many px on its longer side, whatever the canvas: the same picture in preview and
 * render, and little work.
 */
const SMALL_SIDE = 240

/** Beyond this many deviations nothing is seen of what lies outside. */
const REACH = 2.5

/**
 * How large the blurred copy of a composition of `size` is, how far the picture reaches past it on every side, and
 * its deviation there. `radius`: standard deviation in pixels of the composition.
 */
export function blurSizes(size: Size, radius: number): { small: Size; beyond: number; deviation: number } {
  const scale = SMALL_SIDE / Math.max(size.width, size.height)
  const small = {
    width: Math.max(2, Math.round(size.width * scale)),
    height: Math.max(2, Math.round(size.height * scale)),
  }
  const deviation = radius * scale
  // The picture reaches past the edges, or they would be blurred with nothing and darken.
  return { small, beyond: Math.ceil(deviation * REACH), deviation }
}

/** Fills a canvas with a blurred picture. `radius`: standard deviation in pixels of a composition of `size`. */
export function drawBlurred(
  ctx: Context2D,
  size: Size,
  radius: number,
  draw: (ctx: Context2D, dest: Rect) => void,
): void {
  const { small, beyond, deviation } = blurSizes(size, radius)
  const sharp = spareCanvas(ctx, 'sharp', { width: small.width + 2 * beyond, height: small.height + 2 * beyond })
  draw(sharp, { x: 0, y: 0, width: sharp.canvas.width, height: sharp.canvas.height })
  const blurred = spareCanvas(ctx, 'blurred', small)
  blurred.filter = deviation > 0 ? `blur(${deviation}px)` : 'none'
  blurred.drawImage(sharp.canvas, -beyond, -beyond)
  blurred.filter = 'none'
  ctx.imageSmoothingEnabled = true
  ctx.imageSmoothingQuality = 'high'
  ctx.drawImage(blurred.canvas, 0, 0, ctx.canvas.width, ctx.canvas.height)
}
