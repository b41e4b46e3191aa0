import type { Size } from '@/core/geometry/rect'
import { halfOf, halveToRgba, type Planes420, type YuvCoding } from '@/core/picture/halve'
import { shrinkToRgba } from '@/core/picture/shrink'

const MATRICES: Readonly<Record<string, YuvCoding['matrix']>> = { bt709: 'bt709', smpte170m: 'bt601', bt470bg: 'bt601' }

/** How a frame's colours are coded, where its planes can be halved without the browser's help; else null. */
export function codingOf({ format, colorSpace: { matrix, fullRange } }: VideoFrame): YuvCoding | null {
  const matrixOf = MATRICES[matrix ?? '']
  return matrixOf && fullRange !== null && (format === 'I420' || format === 'NV12')
    ? { matrix: matrixOf, fullRange }
    : null
}

/**
 * Reads frames at half their size, or very small: their planes are copied as they are, which costs a tenth of having
 * them converted, and brought down on the way to pixels.
 */
export class FrameShrinker {
  private copied = new Uint8Array(0)
  private pixels = new Uint8ClampedArray(0)

  /** The visible part of a frame whose {@link codingOf} is not null; good until the next call. */
  async halve(frame: VideoFrame, coding: YuvCoding): Promise<ImageData> {
    const size = visibleSize(frame)
    const half = halfOf(size)
    const length = half.width * half.height * 4
    if (this.pixels.length < length) this.pixels = new Uint8ClampedArray(length)
    halveToRgba(await this.planesOf(frame), size, coding, new Uint32Array(this.pixels.buffer, 0, length / 4))
    return new ImageData(this.pixels.subarray(0, length), half.width, half.height)
  }

  /** The same as RGBA of a size far smaller, for a machine to look at; see core/picture/shrink. */
  async shrink(frame: VideoFrame, coding: YuvCoding, to: Size): Promise<Uint8ClampedArray> {
    const rgba = new Uint8ClampedArray(to.width * to.height * 4)
    shrinkToRgba(await this.planesOf(frame), visibleSize(frame), coding, to, rgba)
    return rgba
  }

  private async planesOf(frame: VideoFrame): Promise<Planes420> {
    const needed = frame.allocationSize()
    if (this.copied.length < needed) this.copied = new Uint8Array(needed)
    const bytes = this.copied
    const [y, u, v] = (await frame.copyTo(bytes)).map(({ offset, stride }) => ({ offset, stride, step: 1 }))
    if (!y || !u) throw new Error('a 4:2:0 frame without its planes')
    if (v) return { bytes, y, u, v }
    return { bytes, y, u: { ...u, step: 2 }, v: { ...u, offset: u.offset + 1, step: 2 } }
  }
}

const visibleSize = ({ visibleRect, codedWidth, codedHeight }: VideoFrame): Size =>
  visibleRect ?? { width: codedWidth, height: codedHeight }
