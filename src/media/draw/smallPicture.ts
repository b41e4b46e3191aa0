import type { VideoSample } from 'mediabunny'
import type { DrawCrop } from './cropReader'

/**
 * A frame that has been read, `height` px high and as wide as its proportion asks, as JPEG: WebP takes twice as long.
 */
export function smallPicture(
  { displayWidth, displayHeight }: VideoSample,
  whole: DrawCrop,
  height: number,
): Promise<Blob> {
  const width = Math.max(1, Math.round((height * displayWidth) / displayHeight))
  const ctx = new OffscreenCanvas(width, height).getContext('2d', { alpha: false })
  if (!ctx) throw new Error('no 2D canvas')
  whole(ctx, { x: 0, y: 0, width, height })
  return ctx.canvas.convertToBlob({ type: 'image/jpeg', quality: 0.85 })
}
