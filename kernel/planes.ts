// Arithmetic on 8-bit planes, compiled to WebAssembly with SIMD by AssemblyScript. Every pointer is a byte offset into memory that the caller has laid out;
// nothing is allocated here. Callers leave 32 bytes behind each plane and table: vectors are read whole, what is too much of them is never written.

/** Coefficients are 2.14 fixed point, and add up to 1 for each output. */
const COEF_BITS: i32 = 14

/** Rows between the passes are i16 with so many bits of fraction. */
const ROW_BITS: i32 = 6
const HALF_OF_ROW: i32 = 32

const ACROSS_SHIFT: i32 = COEF_BITS - ROW_BITS
const DOWN_SHIFT: i32 = COEF_BITS + ROW_BITS

/** A row of samples to `outputs` (a multiple of 8) sums of two neighbours each. `coefs`: i16[outputs][2]. */
function acrossTwo(src: usize, dst: usize, outputs: i32, index: usize, coefs: usize): void {
  const half = i32x4.splat(1 << (ACROSS_SHIFT - 1))
  for (let i = 0; i < outputs; i += 8) {
    const at = index + (<usize>i << 2)
    let pairs = v128.load_zero<u32>(src + load<u32>(at))
    pairs = v128.load_lane<u16>(src + load<u32>(at, 4), pairs, 1)
    pairs = v128.load_lane<u16>(src + load<u32>(at, 8), pairs, 2)
    pairs = v128.load_lane<u16>(src + load<u32>(at, 12), pairs, 3)
    pairs = v128.load_lane<u16>(src + load<u32>(at, 16), pairs, 4)
    pairs = v128.load_lane<u16>(src + load<u32>(at, 20), pairs, 5)
    pairs = v128.load_lane<u16>(src + load<u32>(at, 24), pairs, 6)
    pairs = v128.load_lane<u16>(src + load<u32>(at, 28), pairs, 7)
    const c = coefs + (<usize>i << 2)
    const low = i32x4.shr_s(i32x4.add(i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(pairs), v128.load(c)), half), ACROSS_SHIFT)
    const high = i32x4.shr_s(i32x4.add(i32x4.dot_i16x8_s(i16x8.extend_high_i8x16_u(pairs), v128.load(c, 16)), half), ACROSS_SHIFT)
    v128.store(dst + (<usize>i << 1), i16x8.narrow_i32x4_s(low, high))
  }
}

/** A row of samples to `outputs` (a multiple of 4) sums of `taps` (a multiple of 4) neighbours each. `coefs`: i16[outputs / 4][taps / 4][4 outputs][4 taps]. */
function acrossMany(src: usize, dst: usize, outputs: i32, index: usize, coefs: usize, taps: i32): void {
  const half = i32x4.splat(1 << (ACROSS_SHIFT - 1))
  for (let i = 0; i < outputs; i += 4) {
    const at = index + (<usize>i << 2)
    const a = src + load<u32>(at)
    const b = src + load<u32>(at, 4)
    const c = src + load<u32>(at, 8)
    const d = src + load<u32>(at, 12)
    let first = i32x4.splat(0)
    let second = i32x4.splat(0)
    for (let t = 0; t < taps; t += 4) {
      let samples = v128.load_zero<u32>(a + t)
      samples = v128.load_lane<u32>(b + t, samples, 1)
      samples = v128.load_lane<u32>(c + t, samples, 2)
      samples = v128.load_lane<u32>(d + t, samples, 3)
      first = i32x4.add(first, i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(samples), v128.load(coefs)))
      second = i32x4.add(second, i32x4.dot_i16x8_s(i16x8.extend_high_i8x16_u(samples), v128.load(coefs, 16)))
      coefs += 32
    }
    const even = v128.shuffle<i32>(first, second, 0, 2, 4, 6)
    const odd = v128.shuffle<i32>(first, second, 1, 3, 5, 7)
    const sums = i32x4.shr_s(i32x4.add(i32x4.add(even, odd), half), ACROSS_SHIFT)
    v128.store64_lane(dst + (<usize>i << 1), i16x8.narrow_i32x4_s(sums, sums), 0)
  }
}

/** Eight samples from rows of i16, `taps` (even) of them. `rows`: u32[taps], where each begins; `coefs`: i16[taps]. */
@inline
function downEight(rows: usize, at: usize, coefs: usize, taps: i32): v128 {
  let low = i32x4.splat(1 << (DOWN_SHIFT - 1))
  let high = low
  for (let t = 0; t < taps; t += 2) {
    const a = v128.load(<usize>load<u32>(rows + (<usize>t << 2)) + at)
    const b = v128.load(<usize>load<u32>(rows + (<usize>t << 2), 4) + at)
    const c = i32x4.splat(load<i32>(coefs + (<usize>t << 1)))
    low = i32x4.add(low, i32x4.dot_i16x8_s(v128.shuffle<i16>(a, b, 0, 8, 1, 9, 2, 10, 3, 11), c))
    high = i32x4.add(high, i32x4.dot_i16x8_s(v128.shuffle<i16>(a, b, 4, 12, 5, 13, 6, 14, 7, 15), c))
  }
  const words = i16x8.narrow_i32x4_s(i32x4.shr_s(low, DOWN_SHIFT), i32x4.shr_s(high, DOWN_SHIFT))
  return i8x16.narrow_i16x8_u(words, words)
}

/** `width` samples between two rows of i16: `share` of the way from the first to the second, 0..32767 for 0..1. Differences of rows fit into i16. */
function between(first: usize, second: usize, dst: usize, width: i32, share: i32): void {
  const part = i16x8.splat(<i16>share)
  const half = i16x8.splat(<i16>HALF_OF_ROW)
  let x = 0
  for (; x + 16 <= width; x += 16) {
    const at = <usize>x << 1
    const a = v128.load(first + at)
    const b = v128.load(first + at, 16)
    const low = i16x8.add(a, i16x8.q15mulr_sat_s(i16x8.sub(v128.load(second + at), a), part))
    const high = i16x8.add(b, i16x8.q15mulr_sat_s(i16x8.sub(v128.load(second + at, 16), b), part))
    v128.store(dst + x, i8x16.narrow_i16x8_u(i16x8.shr_s(i16x8.add(low, half), ROW_BITS), i16x8.shr_s(i16x8.add(high, half), ROW_BITS)))
  }
  for (; x < width; x++) {
    const a = <i32>load<i16>(first + (<usize>x << 1))
    const b = <i32>load<i16>(second + (<usize>x << 1))
    const sum = a + (((b - a) * share + 16384) >> 15)
    store<u8>(dst + x, <u8>max(0, min(255, (sum + HALF_OF_ROW) >> ROW_BITS)))
  }
}

/**
 * A plane at another size: across first, into a ring of rows, then down. `srcStride` may be negative, for a picture upside down.
 * `xIndex`: u32[outputs], the first sample of each output in its row; `yIndex`: u32[dstHeight], never falling; rows beyond `srcHeight` are never read.
 * `ring`: `ringRows` rows of `outputs` i16; `ringRows` is at least `yTaps`; `rows`: u32[yTaps], scratch.
 */
export function resample(src: usize, srcStride: i32, srcHeight: i32, dst: usize, dstStride: i32, dstWidth: i32, dstHeight: i32, outputs: i32, xIndex: usize, xCoefs: usize, xTaps: i32, yIndex: usize, yCoefs: usize, yTaps: i32, ring: usize, ringRows: i32, rows: usize): void {
  const rowBytes = <usize>outputs << 1
  let done: i32 = <i32>load<u32>(yIndex)
  const whole = dstWidth & ~7
  for (let y = 0; y < dstHeight; y++) {
    const first = <i32>load<u32>(yIndex + (<usize>y << 2))
    if (done < first) done = first
    const end = min(first + yTaps, srcHeight)
    for (; done < end; done++) {
      const from = src + <usize>(done * srcStride)
      const to = ring + <usize>(done % ringRows) * rowBytes
      if (xTaps == 2) acrossTwo(from, to, outputs, xIndex, xCoefs)
      else acrossMany(from, to, outputs, xIndex, xCoefs, xTaps)
    }
    if (yTaps == 2) {
      const a = ring + <usize>(min(first, srcHeight - 1) % ringRows) * rowBytes
      const b = ring + <usize>(min(first + 1, srcHeight - 1) % ringRows) * rowBytes
      between(a, b, dst, dstWidth, min(32767, <i32>load<i16>(yCoefs + (<usize>y << 2), 2) << 1))
      dst += dstStride
      continue
    }
    for (let t = 0; t < yTaps; t++) store<u32>(rows + (<usize>t << 2), <u32>(ring + <usize>(min(first + t, srcHeight - 1) % ringRows) * rowBytes))
    const coefs = yCoefs + <usize>(y * yTaps) * 2
    let x = 0
    for (; x < whole; x += 8) v128.store64_lane(dst + x, downEight(rows, <usize>x << 1, coefs, yTaps), 0)
    if (x < dstWidth) {
      let last = i64x2.extract_lane(downEight(rows, <usize>x << 1, coefs, yTaps), 0)
      for (; x < dstWidth; x++) {
        store<u8>(dst + x, <u8>last)
        last >>= 8
      }
    }
    dst += dstStride
  }
}

/** x / 255, rounded, of products of two bytes. */
@inline
function over255(products: v128): v128 {
  const x = i16x8.add(products, i16x8.splat(128))
  return i16x8.shr_u(i16x8.add(x, i16x8.shr_u(x, 8)), 8)
}

/** Lays premultiplied samples over a plane: `dst = src + dst × (255 − alpha) / 255`. `spans`: u32[height][2], from and to in each row; nothing outside them is touched. */
export function layOver(dst: usize, dstStride: i32, src: usize, alpha: usize, stride: i32, spans: usize, height: i32): void {
  for (let y = 0; y < height; y++) {
    let x = <i32>load<u32>(spans + (<usize>y << 3))
    const to = <i32>load<u32>(spans + (<usize>y << 3), 4)
    for (; x + 8 <= to; x += 8) {
      const through = i16x8.sub(i16x8.splat(255), v128.load_ext<u8>(alpha + x))
      const under = over255(i16x8.mul(v128.load_ext<u8>(dst + x), through))
      const sum = i16x8.add(under, v128.load_ext<u8>(src + x))
      v128.store64_lane(dst + x, i8x16.narrow_i16x8_u(sum, sum), 0)
    }
    for (; x < to; x++) store<u8>(dst + x, <u8>min(255, scalarOver255(<u32>load<u8>(dst + x) * (255 - <u32>load<u8>(alpha + x))) + <u32>load<u8>(src + x)))
    dst += dstStride
    src += stride
    alpha += stride
  }
}

@inline
function scalarOver255(product: u32): u32 {
  const x = product + 128
  return (x + (x >> 8)) >> 8
}

/** Mixes a plane into another where a mask says: `dst = (src × mask + dst × (255 − mask)) / 255`. A `mask` of 0 stands for `opacity` (0..255) everywhere. */
export function mix(dst: usize, dstStride: i32, src: usize, srcStride: i32, mask: usize, maskStride: i32, opacity: i32, width: i32, height: i32): void {
  const everywhere = i16x8.splat(<i16>opacity)
  const all = i16x8.splat(255)
  for (let y = 0; y < height; y++) {
    let x = 0
    for (; x + 8 <= width; x += 8) {
      const a = mask ? v128.load_ext<u8>(mask + x) : everywhere
      // The sum of both products is at most 255 × 255, which 16 bits without a sign hold.
      const sum = over255(i16x8.add(i16x8.mul(v128.load_ext<u8>(src + x), a), i16x8.mul(v128.load_ext<u8>(dst + x), i16x8.sub(all, a))))
      v128.store64_lane(dst + x, i8x16.narrow_i16x8_u(sum, sum), 0)
    }
    for (; x < width; x++) {
      const a = mask ? <u32>load<u8>(mask + x) : <u32>opacity
      store<u8>(dst + x, <u8>scalarOver255(<u32>load<u8>(src + x) * a + <u32>load<u8>(dst + x) * (255 - a)))
    }
    dst += dstStride
    src += srcStride
    mask = mask ? mask + maskStride : 0
  }
}

/** Mixes one value into a plane: `dst = (value × opacity + dst × (255 − opacity)) / 255`. */
export function tint(dst: usize, dstStride: i32, value: i32, opacity: i32, width: i32, height: i32): void {
  const add = i16x8.splat(<i16>(value * opacity))
  const keep = i16x8.splat(<i16>(255 - opacity))
  for (let y = 0; y < height; y++) {
    let x = 0
    for (; x + 8 <= width; x += 8) {
      const sum = over255(i16x8.add(i16x8.mul(v128.load_ext<u8>(dst + x), keep), add))
      v128.store64_lane(dst + x, i8x16.narrow_i16x8_u(sum, sum), 0)
    }
    for (; x < width; x++) store<u8>(dst + x, <u8>scalarOver255(<u32>load<u8>(dst + x) * (255 - opacity) + value * opacity))
    dst += dstStride
  }
}

export function fill(dst: usize, stride: i32, value: i32, width: i32, height: i32): void {
  for (let y = 0; y < height; y++) memory.fill(dst + <usize>(y * stride), <u8>value, width)
}

export function copy(dst: usize, dstStride: i32, src: usize, srcStride: i32, width: i32, height: i32): void {
  for (let y = 0; y < height; y++) memory.copy(dst + <usize>(y * dstStride), src + <usize>(y * srcStride), width)
}

/** A plane lying on its side: `dst[x][y] = src[y][x]`, in squares, so that lines are not fetched again for every sample. */
export function transpose(dst: usize, dstStride: i32, src: usize, srcStride: i32, width: i32, height: i32): void {
  for (let top = 0; top < height; top += 16)
    for (let left = 0; left < width; left += 16) {
      const bottom = min(top + 16, height)
      const right = min(left + 16, width)
      for (let x = left; x < right; x++) {
        let to = dst + <usize>(x * dstStride + top)
        let from = src + <usize>(top * srcStride + x)
        for (let y = top; y < bottom; y++) {
          store<u8>(to++, load<u8>(from))
          from += srcStride
        }
      }
    }
}

/** Takes two planes that share their lines apart: NV12's colour differences. `width`: samples of each. */
export function split(first: usize, second: usize, dstStride: i32, src: usize, srcStride: i32, width: i32, height: i32): void {
  for (let y = 0; y < height; y++) {
    let x = 0
    for (; x + 16 <= width; x += 16) {
      const a = v128.load(src + (<usize>x << 1))
      const b = v128.load(src + (<usize>x << 1), 16)
      v128.store(first + x, v128.shuffle<i8>(a, b, 0, 2, 4, 6, 8, 10, 12, 14, 16, 18, 20, 22, 24, 26, 28, 30))
      v128.store(second + x, v128.shuffle<i8>(a, b, 1, 3, 5, 7, 9, 11, 13, 15, 17, 19, 21, 23, 25, 27, 29, 31))
    }
    for (; x < width; x++) {
      store<u8>(first + x, load<u8>(src + (<usize>x << 1)))
      store<u8>(second + x, load<u8>(src + (<usize>x << 1), 1))
    }
    first += dstStride
    second += dstStride
    src += srcStride
  }
}

/**
 * Straight RGBA (`width` × `height`, both even) to premultiplied BT.709 limited-range planes with their alpha; the colour differences are means of two by two, each weighted by its
 * alpha, and so is theirs. Strides: `width` and half of it.
 */
export function premultiplied(rgba: usize, width: i32, height: i32, luma: usize, alpha: usize, blue: usize, red: usize, halfAlpha: usize): void {
  const stride = <usize>width << 2
  for (let y = 0; y < height; y += 2)
    for (let x = 0; x < width; x += 2) {
      const at = rgba + <usize>y * stride + (<usize>x << 2)
      const to = <usize>(y * width + x)
      let r: u32 = 0
      let g: u32 = 0
      let b: u32 = 0
      let a: u32 = 0
      for (let n = 0; n < 4; n++) {
        const pixel = load<u32>(at + (n & 1 ? 4 : 0) + (n & 2 ? stride : 0))
        const own = pixel >>> 24
        const place = to + <usize>((n & 1) + (n & 2 ? width : 0))
        store<u8>(alpha + place, <u8>own)
        if (own == 0) {
          store<u8>(luma + place, 0)
          continue
        }
        const red8 = pixel & 255
        const green8 = (pixel >> 8) & 255
        const blue8 = (pixel >> 16) & 255
        // 16 + 219/255 (0.2126 R + 0.7152 G + 0.0722 B), 16.16.
        const y8 = (1048576 + 11966 * red8 + 40254 * green8 + 4064 * blue8 + 32768) >> 16
        store<u8>(luma + place, <u8>scalarOver255(y8 * own))
        r += red8 * own
        g += green8 * own
        b += blue8 * own
        a += own
      }
      const half = <usize>((y >> 1) * (width >> 1) + (x >> 1))
      if (a == 0) {
        store<u8>(halfAlpha + half, 0)
        store<u8>(blue + half, 0)
        store<u8>(red + half, 0)
        continue
      }
      const mr = <f32>r / <f32>a
      const mg = <f32>g / <f32>a
      const mb = <f32>b / <f32>a
      const mean = (a + 2) >> 2
      const u = <u32>(128.5 - 0.100644 * mr - 0.338572 * mg + 0.439216 * mb)
      const v = <u32>(128.5 + 0.439216 * mr - 0.398942 * mg - 0.040274 * mb)
      store<u8>(halfAlpha + half, <u8>mean)
      store<u8>(blue + half, <u8>scalarOver255(u * mean))
      store<u8>(red + half, <u8>scalarOver255(v * mean))
    }
}
