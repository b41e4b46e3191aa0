import type { Size } from '../geometry/rect'

/**
 * How a picture's luma and colour differences become red, green and blue: ITU-T H.273 matrix coefficients and range.
 */
export interface YuvCoding {
  matrix: 'bt709' | 'bt601'
  fullRange: boolean
}

/** One plane inside a run of bytes; `step` bytes from sample to sample (2 where two planes share their lines). */
export interface Plane {
  offset: number
  stride: number
  step: number
}

/** Luma at full size, colour differences at half of it, both ways: 8-bit 4:2:0, as I420 or NV12. */
export interface Planes420 {
  bytes: Uint8Array
  y: Plane
  u: Plane
  v: Plane
}

/** Kr and Kb of each matrix. */
const WEIGHTS = { bt709: [0.2126, 0.0722], bt601: [0.299, 0.114] } as const

/** 16.16 fixed point. */
const ONE = 65536

/** Sums and differences reach this far beyond 0..255 before they are cut to it. */
const BEYOND = 512

const CUT = Uint8ClampedArray.from({ length: 256 + 2 * BEYOND }, (_, i) => i - BEYOND)

export const halfOf = ({ width, height }: Size): Size => ({
  width: Math.ceil(width / 2),
  height: Math.ceil(height / 2),
})

/**
 * A 4:2:0 picture of `size` at half its width and height, as opaque RGBA `out[⌈height/2⌉][⌈width/2⌉]`, little-endian.
 * Four luma samples are averaged to one; the colour differences are of that size already, so that this is the exact
 * box filter at a fraction of a conversion's cost.
 */
export function halveToRgba(
  { bytes, y: yPlane, u: uPlane, v: vPlane }: Planes420,
  size: Size,
  coding: YuvCoding,
  out: Uint32Array,
): void {
  const { width, height } = halfOf(size)
  const { luma, black, rv, gu, gv, bu } = factorsOf(coding)
  const lastX = size.width - 1
  const lastY = size.height - 1
  let at = 0
  for (let row = 0; row < height; row++) {
    const above = yPlane.offset + 2 * row * yPlane.stride
    const below = yPlane.offset + Math.min(2 * row + 1, lastY) * yPlane.stride
    let u = uPlane.offset + row * uPlane.stride
    let v = vPlane.offset + row * vPlane.stride
    for (let column = 0; column < width; column++) {
      const left = 2 * column
      const right = left < lastX ? left + 1 : left
      const sum =
        (bytes[above + left] as number) +
        (bytes[above + right] as number) +
        (bytes[below + left] as number) +
        (bytes[below + right] as number)
      const lit = luma * (sum - black) + BEYOND * ONE + ONE / 2
      const cb = (bytes[u] as number) - CHROMA_MIDDLE
      const cr = (bytes[v] as number) - CHROMA_MIDDLE
      const red = CUT[(lit + rv * cr) >> 16] as number
      const green = CUT[(lit - gu * cb - gv * cr) >> 16] as number
      const blue = CUT[(lit + bu * cb) >> 16] as number
      out[at++] = 0xff000000 | (blue << 16) | (green << 8) | red
      u += uPlane.step
      v += vPlane.step
    }
  }
}

/** Fixed-point factors; `luma` is for the sum of four samples. */
function factorsOf(coding: YuvCoding) {
  const { scale, black, rv, gu, gv, bu } = codingFactors(coding)
  const fixed = (factor: number) => Math.round(factor * ONE)
  return { luma: fixed(scale / 4), black: 4 * black, rv: fixed(rv), gu: fixed(gu), gv: fixed(gv), bu: fixed(bu) }
}

/** What a colour difference of nothing is coded as. */
export const CHROMA_MIDDLE = 128

/**
 * By what luma over `black` and colour differences about {@link CHROMA_MIDDLE} are multiplied to become red, green and
 * blue, 0..255.
 */
export function codingFactors({ matrix, fullRange }: YuvCoding) {
  const [kr, kb] = WEIGHTS[matrix]
  const kg = 1 - kr - kb
  const [lumaSpan, chromaSpan] = fullRange ? [255, 255] : [219, 224]
  const chroma = (factor: number) => (factor * 255) / chromaSpan
  return {
    scale: 255 / lumaSpan,
    black: fullRange ? 0 : 16,
    rv: chroma(2 * (1 - kr)),
    gu: chroma((2 * kb * (1 - kb)) / kg),
    gv: chroma((2 * kr * (1 - kr)) / kg),
    bu: chroma(2 * (1 - kb)),
  }
}
