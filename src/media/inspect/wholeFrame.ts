import type { Micros } from '@/core/time/micros'
import { CropReader } from '../draw/cropReader'
import { framesAt } from '../source/framesAt'
import type { Source } from '../source/openSource'

/** The frame on screen at `t` in all its pixels, upright, for the caller to close; null when there is none. */
export async function wholeFrame(source: Source, t: Micros): Promise<ImageBitmap | null> {
  const first = await source.video.getFirstTimestamp()
  for await (const sample of framesAt(source.video, [Math.max(first, source.toContainer(t) + 0.001)])) {
    if (!sample) return null
    try {
      const { displayWidth: width, displayHeight: height } = sample
      const ctx = new OffscreenCanvas(width, height).getContext('2d', { alpha: false })
      if (!ctx) return null
      const draw = await new CropReader().readWhole(sample)
      draw(ctx, { x: 0, y: 0, width, height })
      return ctx.canvas.transferToImageBitmap()
    } finally {
      sample.close()
    }
  }
  return null
}
