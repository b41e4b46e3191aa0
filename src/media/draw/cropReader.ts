import type { VideoSample } from 'mediabunny'
import type { Rect, Size } from '@/core/geometry/rect'
import { hasGpu } from '../gpu/gpu'
import { codingOf, FrameShrinker } from './frameShrinker'

export type Context2D = OffscreenCanvasRenderingContext2D | CanvasRenderingContext2D

/**
 * Draws what was read into a rectangle of a canvas; good until the next {@link CropReader.begin}. `part`, in the same
 * pixels as the crop that was read and inside it, draws less of it.
 */
export type DrawCrop = (ctx: Context2D, dest: Rect, part?: Rect) => void

/**
 * Drawn at so much of its size or less, a picture is halved first: a filter that looks at four pixels would leave
 * some out.
 */
export const HALVED_FROM = 0.54

/** Planar formats whose frames can be narrowed to a crop before conversion; the rest is drawn whole. */
const NARROWABLE: ReadonlySet<string | null> = new Set(['I420', 'NV12'])

/**
 * Rows copied out at a time; even, for the sake of half-size colour planes. Whole frames at once would hold eight
 * megabytes more in every worker.
 */
const STRIP_ROWS = 270

/**
 * Scratch canvases have sides in steps of this, so that a crop that is being zoomed does not need a new one for every
 * frame.
 */
const SCRATCH_STEP = 64

/**
 * Turns crops of decoded frames into pixels that canvases can draw.
 *
 * Without a GPU, Chromium keeps a converted copy of each frame that is drawn, up to half a gigabyte of them. So there
 * a crop's pixels are copied out instead, converted on the way, onto scratch canvases that are used again; the same
 * picture to the last bit, in less time where it is enlarged. With a GPU the frame is drawn as it is: copying it out
 * would cost more than it saves.
 */
export class CropReader {
  private readonly scratches: OffscreenCanvasRenderingContext2D[] = []
  private used = 0
  /** Narrowed frames that are drawn as they are. */
  private readonly open: VideoFrame[] = []
  /** One strip of a frame on its way from the decoder to a canvas. */
  private pixels = new Uint8ClampedArray(0)
  private readonly shrinker = new FrameShrinker()

  /** Begins a new picture: what was read for the one before is drawn over from here on. */
  begin(): void {
    this.used = 0
    for (const frame of this.open.splice(0)) frame.close()
  }

  /**
   * Reads `crop`, in display-oriented pixels, of a frame. `small` says that it will be drawn at {@link HALVED_FROM}
   * of its size at most. Not for concurrent use. The frame is borrowed until what is returned has been drawn.
   */
  async read(frame: VideoSample, crop: Rect, small = false): Promise<DrawCrop> {
    const plain = frame.rotation === 0 && !frame.flip && frame.squarePixelWidth === frame.visibleRect.width
    if (!plain || !NARROWABLE.has(frame.format)) {
      return (ctx, dest, part = crop) => {
        smooth(ctx, dest.width < part.width ? 'medium' : 'high')
        frame.draw(ctx, part.x, part.y, part.width, part.height, dest.x, dest.y, dest.width, dest.height)
      }
    }
    const { narrowed, x, y } = narrow(frame, crop)
    if (hasGpu()) {
      this.open.push(narrowed)
      // Enlarging with the best filter costs no more than with the simplest here; for small previews mipmaps keep
      // edges calm.
      return (ctx, dest, part = crop) => {
        smooth(ctx, dest.width < part.width ? 'medium' : 'high')
        ctx.drawImage(
          narrowed,
          part.x - x,
          part.y - y,
          part.width,
          part.height,
          dest.x,
          dest.y,
          dest.width,
          dest.height,
        )
      }
    }
    try {
      const { canvas, scale } = await this.copyOut(narrowed, small)
      return (ctx, dest, part = crop) => {
        smooth(ctx, dest.width <= HALVED_FROM * scale * part.width ? 'medium' : 'low')
        ctx.drawImage(
          canvas,
          scale * (part.x - x),
          scale * (part.y - y),
          scale * part.width,
          scale * part.height,
          dest.x,
          dest.y,
          dest.width,
          dest.height,
        )
      }
    } finally {
      narrowed.close()
    }
  }

  /** The whole of a frame, upright; `small` as for {@link read}. */
  readWhole(frame: VideoSample, small = false): Promise<DrawCrop> {
    return this.read(frame, { x: 0, y: 0, width: frame.displayWidth, height: frame.displayHeight }, small)
  }

  /** The pixels of a frame on a canvas, at `scale` of their number each way. */
  private async copyOut(frame: VideoFrame, small: boolean): Promise<{ canvas: OffscreenCanvas; scale: number }> {
    const coding = small ? codingOf(frame) : null
    if (coding) {
      const half = await this.shrinker.halve(frame, coding)
      const scratch = this.scratch(half)
      scratch.putImageData(half, 0, 0)
      return { canvas: scratch.canvas, scale: 0.5 }
    }
    const {
      x: left,
      y: top,
      width,
      height,
    } = frame.visibleRect ?? { x: 0, y: 0, width: frame.codedWidth, height: frame.codedHeight }
    const { x: originX, y: originY } = (await countsFromVisible()) ? { x: 0, y: 0 } : { x: left, y: top }
    const scratch = this.scratch({ width, height })
    const most = width * Math.min(height, STRIP_ROWS) * 4
    if (this.pixels.length < most) this.pixels = new Uint8ClampedArray(most)
    for (let y = 0; y < height; y += STRIP_ROWS) {
      const rows = Math.min(STRIP_ROWS, height - y)
      const pixels = this.pixels.subarray(0, width * rows * 4)
      await frame.copyTo(pixels, { rect: { x: originX, y: originY + y, width, height: rows }, format: 'RGBX' })
      scratch.putImageData(new ImageData(pixels, width, rows), 0, y)
    }
    return { canvas: scratch.canvas, scale: 1 }
  }

  private scratch({ width, height }: Size): OffscreenCanvasRenderingContext2D {
    const n = this.used++
    const wanted = {
      width: Math.ceil(width / SCRATCH_STEP) * SCRATCH_STEP,
      height: Math.ceil(height / SCRATCH_STEP) * SCRATCH_STEP,
    }
    const cached = this.scratches[n]
    if (cached && cached.canvas.width === wanted.width && cached.canvas.height === wanted.height) return cached
    const made = new OffscreenCanvas(wanted.width, wanted.height).getContext('2d', {
      alpha: false,
      willReadFrequently: true,
    })
    if (!made) throw new Error('no 2D canvas')
    this.scratches[n] = made
    return made
  }
}

/**
 * Whether this browser counts a rectangle to be converted from the visible part of a frame, and not, as WebCodecs has
 * it, from the coded one. Firefox does.
 */
let fromVisible: Promise<boolean> | null = null

function countsFromVisible(): Promise<boolean> {
  fromVisible ??= (async () => {
    const whole = new VideoFrame(new Uint8Array(24), { format: 'I420', codedWidth: 4, codedHeight: 4, timestamp: 0 })
    const corner = new VideoFrame(whole, { visibleRect: { x: 2, y: 2, width: 2, height: 2 } })
    try {
      await corner.copyTo(new Uint8Array(16), { rect: { x: 2, y: 2, width: 2, height: 2 }, format: 'RGBX' })
      return false
    } catch {
      return true
    } finally {
      corner.close()
      whole.close()
    }
  })()
  return fromVisible
}

/**
 * A frame of the crop's own pixels alone, and where it starts: on even pixels, for the sake of half-size colour
 * planes.
 */
function narrow(sample: VideoSample, crop: Rect): { narrowed: VideoFrame; x: number; y: number } {
  const frame = sample.toVideoFrame()
  // Browsers do not agree on what lies round a decoded picture: the frame's own account is the one to go by.
  const visible = frame.visibleRect ?? new DOMRectReadOnly(0, 0, frame.codedWidth, frame.codedHeight)
  const x = 2 * Math.floor(crop.x / 2)
  const y = 2 * Math.floor(crop.y / 2)
  const width = Math.min(visible.width - x, 2 * Math.ceil((crop.x + crop.width - 1e-6) / 2) - x)
  const height = Math.min(visible.height - y, 2 * Math.ceil((crop.y + crop.height - 1e-6) / 2) - y)
  const narrowed = new VideoFrame(frame, { visibleRect: { x: visible.left + x, y: visible.top + y, width, height } })
  frame.close()
  return { narrowed, x, y }
}

function smooth(ctx: Context2D, quality: ImageSmoothingQuality): void {
  ctx.imageSmoothingEnabled = true
  ctx.imageSmoothingQuality = quality
}
