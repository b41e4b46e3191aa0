// The inner loops of sound, compiled to WebAssembly with SIMD by AssemblyScript: what src/core/sound/arithmetic.ts does in JavaScript, to single precision.
// Every pointer is a byte offset into memory that the caller has laid out, with 16 bytes behind each array; nothing is allocated here.

/** Samples that the oversampling filter looks at for one. */
const TAPS: i32 = 12

/** For `count` samples (a multiple of 4) the highest absolute value of four phases of a filter. `src`: f32[11 + count]; `phases`: f32[4][12], the newest sample's coefficient first. */
export function oversample(src: usize, count: i32, dst: usize, phases: usize): void {
  for (let i = 0; i < count; i += 4) {
    const newest = src + ((<usize>(i + TAPS - 1)) << 2)
    let a = f32x4.splat(0)
    let b = f32x4.splat(0)
    let c = f32x4.splat(0)
    let d = f32x4.splat(0)
    for (let k: usize = 0; k < <usize>TAPS << 2; k += 4) {
      const x = v128.load(newest - k)
      a = f32x4.add(a, f32x4.mul(x, v128.load32_splat(phases + k)))
      b = f32x4.add(b, f32x4.mul(x, v128.load32_splat(phases + k, 48)))
      c = f32x4.add(c, f32x4.mul(x, v128.load32_splat(phases + k, 96)))
      d = f32x4.add(d, f32x4.mul(x, v128.load32_splat(phases + k, 144)))
    }
    v128.store(dst + (<usize>i << 2), f32x4.max(f32x4.max(f32x4.abs(a), f32x4.abs(b)), f32x4.max(f32x4.abs(c), f32x4.abs(d))))
  }
}

/** `count` means of `step` samples each, one after the other. `src`: f32[count * step]. */
export function means(src: usize, step: i32, dst: usize, count: i32): void {
  const share: f32 = 1 / <f32>step
  for (let i = 0; i < count; i++) {
    let sum: f32 = 0
    for (const end = src + (<usize>step << 2); src < end; src += 4) sum += load<f32>(src)
    store<f32>(dst + (<usize>i << 2), sum * share)
  }
}

/** Of `starts` neighbouring starts in `heard` (f32[starts + count]) the one that is most like `like` (f32[count]): normalised cross-correlation. */
export function bestOf(heard: usize, starts: i32, like: usize, count: i32): i32 {
  const whole = count & ~7
  let energy: f64 = 1e-9
  for (let i = 0; i < count; i++) {
    const v = <f64>load<f32>(heard + (<usize>i << 2))
    energy += v * v
  }
  let found = 0
  let most = -Infinity
  for (let n = 0; n < starts; n++) {
    const from = heard + (<usize>n << 2)
    let first = f32x4.splat(0)
    let second = f32x4.splat(0)
    for (let i = 0; i < whole; i += 8) {
      const at = <usize>i << 2
      first = f32x4.add(first, f32x4.mul(v128.load(from + at), v128.load(like + at)))
      second = f32x4.add(second, f32x4.mul(v128.load(from + at, 16), v128.load(like + at, 16)))
    }
    first = f32x4.add(first, second)
    let sum = <f64>f32x4.extract_lane(first, 0) + <f64>f32x4.extract_lane(first, 1) + <f64>f32x4.extract_lane(first, 2) + <f64>f32x4.extract_lane(first, 3)
    for (let i = whole; i < count; i++) sum += <f64>load<f32>(from + (<usize>i << 2)) * <f64>load<f32>(like + (<usize>i << 2))
    const likeness = sum / Math.sqrt(Math.max(1e-9, energy))
    if (likeness > most + 1e-12) {
      most = likeness
      found = n
    }
    const next = <f64>load<f32>(from + (<usize>count << 2))
    const gone = <f64>load<f32>(from)
    energy += next * next - gone * gone
  }
  return found
}

/** Sum of squares of `count` samples after two second-order sections one behind the other (transposed direct form II). `filter`: f64[10], b0 b1 b2 a1 a2 of each; `state`: f64[4], kept. */
export function weigh(src: usize, count: i32, filter: usize, state: usize): f64 {
  const b0 = load<f64>(filter)
  const b1 = load<f64>(filter, 8)
  const b2 = load<f64>(filter, 16)
  const a1 = load<f64>(filter, 24)
  const a2 = load<f64>(filter, 32)
  const c0 = load<f64>(filter, 40)
  const c1 = load<f64>(filter, 48)
  const c2 = load<f64>(filter, 56)
  const d1 = load<f64>(filter, 64)
  const d2 = load<f64>(filter, 72)
  let z1 = load<f64>(state)
  let z2 = load<f64>(state, 8)
  let y1 = load<f64>(state, 16)
  let y2 = load<f64>(state, 24)
  let sum: f64 = 0
  for (let i = 0; i < count; i++) {
    const x = <f64>load<f32>(src + (<usize>i << 2))
    const shelved = b0 * x + z1
    z1 = b1 * x - a1 * shelved + z2
    z2 = b2 * x - a2 * shelved
    const out = c0 * shelved + y1
    y1 = c1 * shelved - d1 * out + y2
    y2 = c2 * shelved - d2 * out
    sum += out * out
  }
  store<f64>(state, z1)
  store<f64>(state, z2, 8)
  store<f64>(state, y1, 16)
  store<f64>(state, y2, 24)
  return sum
}
