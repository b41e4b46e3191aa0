import { VideoSample } from 'mediabunny'
import type { Size } from '@/core/geometry/rect'

/** What every file is written in: BT.709 throughout, limited range. */
export const OUTPUT_COLOURS = { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', fullRange: false } as const

/** When a frame is shown and for how long, in seconds. */
export interface FrameTime {
  timestamp: number
  duration: number
}

/**
 * The canvas a render is drawn on, and the way from it to the encoder. A frame made straight from a canvas is coded
 * as limited range but labelled full range by Chromium; so its pixels are handed over with their colours said in
 * words.
 */
export class PictureCanvas {
  readonly ctx: OffscreenCanvasRenderingContext2D
  private readonly canvas: OffscreenCanvas
  /** Used again for every frame: a new one each time would be 8 MB of garbage a frame. */
  private readonly pixels: Uint8Array<ArrayBuffer>

  constructor(private readonly size: Size) {
    this.canvas = new OffscreenCanvas(size.width, size.height)
    this.pixels = new Uint8Array(size.width * size.height * 4)
    // Pixels are read back for every frame: without this hint a machine with a GPU would copy each from it.
    const ctx = this.canvas.getContext('2d', { alpha: false, willReadFrequently: true })
    if (!ctx) throw new Error('no 2D canvas')
    this.ctx = ctx
  }

  /** The canvas as a frame for the encoder; whoever calls closes it. */
  async toSample({ timestamp, duration }: FrameTime): Promise<VideoSample> {
    const drawn = new VideoFrame(this.canvas, { timestamp: 0, alpha: 'discard' })
    const format = drawn.format === 'BGRX' || drawn.format === 'BGRA' ? 'BGRX' : 'RGBX'
    try {
      await drawn.copyTo(this.pixels)
    } finally {
      drawn.close()
    }
    const { width, height } = this.size
    const labelled = new VideoFrame(this.pixels, {
      format,
      codedWidth: width,
      codedHeight: height,
      timestamp: Math.round(timestamp * 1e6),
      duration: Math.round(duration * 1e6),
      colorSpace: OUTPUT_COLOURS,
    })
    return new VideoSample(labelled, { timestamp, duration })
  }
}
