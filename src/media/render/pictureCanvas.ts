import { VideoSample } from 'mediabunny'
import type { Size } from '@/core/geometry/rect'

/**
 * The canvas a render is drawn on, and the way from it to the encoder. A frame made straight from a canvas is coded as
 * limited range but labelled full range by Chromium; so the pixels are handed over with their colours said in words:
 * BT.709 primaries, transfer and matrix, limited range.
 */
export class PictureCanvas {
  readonly ctx: OffscreenCanvasRenderingContext2D
  private readonly canvas: OffscreenCanvas

  constructor(private readonly size: Size) {
    this.canvas = new OffscreenCanvas(size.width, size.height)
    // Pixels are read back for every frame: without this hint a machine with a GPU would copy each from it.
    const ctx = this.canvas.getContext('2d', { alpha: false, willReadFrequently: true })
    if (!ctx) throw new Error('no 2D canvas')
    this.ctx = ctx
  }

  /** The canvas as a frame for the encoder. Times in seconds; whoever calls closes it. */
  toSample(timestamp: number, duration: number): VideoSample {
    const { width, height } = this.size
    const { data } = this.ctx.getImageData(0, 0, width, height)
    const frame = new VideoFrame(data, {
      format: 'RGBX',
      codedWidth: width,
      codedHeight: height,
      timestamp: Math.round(timestamp * 1e6),
      duration: Math.round(duration * 1e6),
      colorSpace: { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', fullRange: false },
      transfer: [data.buffer],
    })
    return new VideoSample(frame, { timestamp, duration })
  }
}
