import type { VideoSample } from 'mediabunny'
import type { Size } from '@/core/geometry/rect'
import { CropReader } from '../draw/cropReader'

/** Formats that begin with a plane of 8-bit luma. */
const PLANAR: ReadonlySet<string | null> = new Set(['I420', 'I420A', 'I422', 'I444', 'NV12'])

/** Reads the brightness of frames, upright and with square pixels. */
export class LumaReader {
  private readonly reader = new CropReader()
  private bytes = new Uint8Array(0)
  private luma = new Uint8Array(0)

  /** 8-bit luma `[height][width]` of `sample`, which is borrowed; what is returned is written over by the next call. */
  async read(sample: VideoSample, { width, height }: Size): Promise<Uint8Array> {
    if (this.luma.length !== width * height) this.luma = new Uint8Array(width * height)
    const plain =
      sample.rotation === 0 &&
      !sample.flip &&
      sample.visibleRect.width === width &&
      sample.visibleRect.height === height
    if (plain && PLANAR.has(sample.format)) await this.fromPlane(sample, { width, height })
    else await this.fromCanvas(sample, { width, height })
    return this.luma
  }

  private async fromPlane(sample: VideoSample, { width, height }: Size): Promise<void> {
    const frame = sample.toVideoFrame()
    try {
      const size = frame.allocationSize()
      if (this.bytes.length < size) this.bytes = new Uint8Array(size)
      const [plane] = await frame.copyTo(this.bytes)
      const { offset = 0, stride = width } = plane ?? {}
      for (let y = 0; y < height; y++)
        this.luma.set(this.bytes.subarray(offset + y * stride, offset + y * stride + width), y * width)
    } finally {
      frame.close()
    }
  }

  private async fromCanvas(sample: VideoSample, { width, height }: Size): Promise<void> {
    const ctx = new OffscreenCanvas(width, height).getContext('2d', { alpha: false, willReadFrequently: true })
    if (!ctx) throw new Error('no 2D canvas')
    this.reader.begin()
    const draw = await this.reader.readWhole(sample)
    draw(ctx, { x: 0, y: 0, width, height })
    const { data } = ctx.getImageData(0, 0, width, height)
    // BT.709 weights, in 65536ths.
    for (let i = 0, p = 0; i < this.luma.length; i++, p += 4)
      this.luma[i] =
        (13933 * (data[p] as number) + 46871 * (data[p + 1] as number) + 4732 * (data[p + 2] as number)) >> 16
  }
}
