import { applyPalette, GIFEncoder, quantize, type GIFEncoder as Encoder, type Palette } from 'gifenc'
import type { VideoSample } from 'mediabunny'
import type { Size } from '@/core/geometry/rect'
import type { RenderSettings } from '@/core/model/render'
import { framesPerSecond } from '@/core/time/frameRate'

/** A still is taken so far into the highlight: past a beginning that is faded in. */
const POSTER_AT = 1 / 3

/** A loop is for chats and pages that play no video: small and slow. */
const LOOP_WIDTH = 320
const LOOP_FPS = 10
const COLOURS = 256
/** Colours are chosen anew for every so many pictures of a loop: choosing costs more than all else. */
const CHOSEN_FOR = 10

/** The still and the loop that are made beside a file, from its own frames. */
export class FileExtras {
  private poster: Blob | null = null
  private readonly gif: Encoder | null
  private readonly every: number
  private palette: Palette = []
  private loopFrames = 0
  private readonly small: OffscreenCanvasRenderingContext2D | null = null

  constructor(
    private readonly settings: RenderSettings,
    private readonly frames: number,
    private readonly size: Size,
  ) {
    this.every = Math.max(1, Math.round(framesPerSecond(settings.frameRate) / LOOP_FPS))
    this.gif = settings.loop ? GIFEncoder() : null
    if (!settings.loop) return
    const { width, height } = size
    const scale = Math.min(1, LOOP_WIDTH / width)
    this.small = new OffscreenCanvas(Math.round(width * scale), Math.round(height * scale)).getContext('2d', {
      alpha: false,
      willReadFrequently: true,
    })
  }

  /** Looks at what the encoder got as frame `n`. */
  async take(n: number, sample: VideoSample): Promise<void> {
    if (this.settings.poster && n === Math.floor(this.frames * POSTER_AT))
      this.poster = await stillOf(sample, this.size)
    if (!this.gif || !this.small || n % this.every !== 0) return
    const { width, height } = this.small.canvas
    this.small.imageSmoothingQuality = 'high'
    sample.draw(this.small, 0, 0, width, height)
    const pixels = this.small.getImageData(0, 0, width, height).data
    if (this.loopFrames++ % CHOSEN_FOR === 0) this.palette = quantize(pixels, COLOURS)
    this.gif.writeFrame(applyPalette(pixels, this.palette), width, height, {
      palette: this.palette,
      delay: (1000 * this.every) / framesPerSecond(this.settings.frameRate),
      repeat: 0,
    })
  }

  made(): { kind: 'poster' | 'loop'; blob: Blob }[] {
    this.gif?.finish()
    return [
      ...(this.poster ? [{ kind: 'poster' as const, blob: this.poster }] : []),
      ...(this.gif
        ? [
            {
              kind: 'loop' as const,
              blob: new Blob([this.gif.bytes() as Uint8Array<ArrayBuffer>], { type: 'image/gif' }),
            },
          ]
        : []),
    ]
  }
}

function stillOf(sample: VideoSample, { width, height }: Size): Promise<Blob> {
  const ctx = new OffscreenCanvas(width, height).getContext('2d', { alpha: false })
  if (!ctx) throw new Error('no 2D canvas')
  sample.draw(ctx, 0, 0, width, height)
  return ctx.canvas.convertToBlob({ type: 'image/png' })
}
