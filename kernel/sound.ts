// The inner loops of sound, compiled to WebAssembly with SIMD by AssemblyScript: what src/core/sound/arithmetic.ts does in JavaScript, to single precision.
// Every pointer is a byte offset into memory that the caller has laid out, with 16 bytes behind each array; nothing is allocated here.

/** Samples that the oversampling filter looks at for one. */
const TAPS: i32 = 12

/** Frames that are looked at as one for whether they can matter at all. */
const CHUNK: i32 = 32

/**
 * For `count` frames (a multiple of 4) of stereo the highest absolute value of four phases of a filter, of either channel; 0 for frames round which nothing is above `quiet`.
 * `src`: f32[2 * (11 + count)]; `phases`: f32[4][12], the newest sample's coefficient first; `dst`: f32[count]. Gives the highest of all.
 */
export function oversample(src: usize, count: i32, dst: usize, phases: usize, quiet: f32): f32 {
  let highest = f32x4.splat(0)
  for (let from = 0; from < count; from += CHUNK) {
    const to = min(count, from + CHUNK)
    let high = f32x4.splat(0)
    // Whole vectors: a frame more than there is has room behind it, and is no sound of this block's.
    for (let i = from; i < to + TAPS - 1; i += 2) high = f32x4.max(high, f32x4.abs(v128.load(src + (<usize>i << 3))))
    if (most(high) <= quiet) {
      for (let i = from; i < to; i += 4) v128.store(dst + (<usize>i << 2), f32x4.splat(0))
      continue
    }
    for (let i = from; i < to; i += 4) {
      const newest = src + ((<usize>(i + TAPS - 1)) << 3)
      let a = f32x4.splat(0)
      let b = f32x4.splat(0)
      let c = f32x4.splat(0)
      let d = f32x4.splat(0)
      let e = f32x4.splat(0)
      let f = f32x4.splat(0)
      let g = f32x4.splat(0)
      let h = f32x4.splat(0)
      for (let k: usize = 0; k < <usize>TAPS; k++) {
        const x = v128.load(newest - (k << 3))
        const y = v128.load(newest - (k << 3), 16)
        const tap = phases + (k << 2)
        const p = v128.load32_splat(tap)
        const q = v128.load32_splat(tap, 48)
        const r = v128.load32_splat(tap, 96)
        const s = v128.load32_splat(tap, 144)
        a = f32x4.add(a, f32x4.mul(x, p))
        b = f32x4.add(b, f32x4.mul(x, q))
        c = f32x4.add(c, f32x4.mul(x, r))
        d = f32x4.add(d, f32x4.mul(x, s))
        e = f32x4.add(e, f32x4.mul(y, p))
        f = f32x4.add(f, f32x4.mul(y, q))
        g = f32x4.add(g, f32x4.mul(y, r))
        h = f32x4.add(h, f32x4.mul(y, s))
      }
      const first = f32x4.max(f32x4.max(f32x4.abs(a), f32x4.abs(b)), f32x4.max(f32x4.abs(c), f32x4.abs(d)))
      const second = f32x4.max(f32x4.max(f32x4.abs(e), f32x4.abs(f)), f32x4.max(f32x4.abs(g), f32x4.abs(h)))
      // Left and right of two frames each: the higher of both.
      const peaks = f32x4.max(v128.shuffle<f32>(first, second, 0, 2, 4, 6), v128.shuffle<f32>(first, second, 1, 3, 5, 7))
      v128.store(dst + (<usize>i << 2), peaks)
      highest = f32x4.max(highest, peaks)
    }
  }
  return most(highest)
}

function most(lanes: v128): f32 {
  return max(max(f32x4.extract_lane(lanes, 0), f32x4.extract_lane(lanes, 1)), max(f32x4.extract_lane(lanes, 2), f32x4.extract_lane(lanes, 3)))
}

/** `count` means of `step` samples each, one after the other. `src`: f32[count * step]. */
function means(src: usize, step: i32, dst: usize, count: i32): void {
  const share: f32 = 1 / <f32>step
  for (let i = 0; i < count; i++) {
    let sum: f32 = 0
    for (const end = src + (<usize>step << 2); src < end; src += 4) sum += load<f32>(src)
    store<f32>(dst + (<usize>i << 2), sum * share)
  }
}

/** Of `starts` neighbouring starts in `heard` (f32[starts + count]) the one that is most like `like` (f32[count]): normalised cross-correlation. */
function bestOf(heard: usize, starts: i32, like: usize, count: i32): i32 {
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

/**
 * Finds where in stereo `heard` (f32[2 * (starts + 2 * count − 1)]) a stretch begins that is most like `tail` (f32[2 * count]), of all `starts`, and crosses over from `tail` to it by the gains
 * `fade` (f32[count]) into `dst` (f32[2 * count]). `room`: for 3 * (starts + count + 8) samples. `count` is even.
 */
export function goOn(heard: usize, starts: i32, tail: usize, count: i32, fade: usize, dst: usize, room: usize): i32 {
  const length = starts + count - 1
  const sums = room
  const like = room + (<usize>(length + 8) << 2)
  const means1 = like + (<usize>(count + 8) << 2)
  const means2 = means1 + (<usize>(count + 8) << 2)
  inOne(heard, length, sums)
  inOne(tail, count, like)
  const found = bestFit(sums, starts, like, count, means1, means2)
  const from = heard + (<usize>found << 3)
  const one = f32x4.splat(1)
  for (let i = 0; i < count; i += 2) {
    const at = <usize>i << 3
    const gains = v128.load64_zero(fade + (<usize>i << 2))
    const to = v128.shuffle<f32>(gains, gains, 0, 0, 1, 1)
    v128.store(dst + at, f32x4.add(f32x4.mul(v128.load(tail + at), f32x4.sub(one, to)), f32x4.mul(v128.load(from + at), to)))
  }
  return found
}

/** Both channels of `count` frames added up; a few more are written behind them. */
function inOne(stereo: usize, count: i32, dst: usize): void {
  for (let i = 0; i < count; i += 4) {
    const a = v128.load(stereo + (<usize>i << 3))
    const b = v128.load(stereo + (<usize>i << 3), 16)
    v128.store(dst + (<usize>i << 2), f32x4.add(v128.shuffle<f32>(a, b, 0, 2, 4, 6), v128.shuffle<f32>(a, b, 1, 3, 5, 7)))
  }
}

/** Where in `heard` (f32[starts + count − 1]) what is most like `like` (f32[count]) begins: in means of 8 samples first, then of 2, then of each. */
function bestFit(heard: usize, starts: i32, like: usize, count: i32, means1: usize, means2: usize): i32 {
  const length = starts + count - 1
  const last = starts - 1
  let least = 0
  let most = last
  let found = 0
  for (let step = 8; step > 0; step = step == 8 ? 2 : step == 2 ? 1 : 0) {
    const shapes = (count + step - 1) / step
    const tries = (most - least) / step + 1
    shaped(like, 0, count, shapes, step, means1)
    shaped(heard, least, length, tries + shapes, step, means2)
    found = least + bestOf(means2, tries, means1, shapes) * step
    least = max(0, found - step)
    most = min(last, found + step)
  }
  return found
}

/** `count` means from sample `from` of `length` on; silence for those that would reach beyond the end, and 16 bytes behind all. */
function shaped(src: usize, from: i32, length: i32, count: i32, step: i32, dst: usize): void {
  const there = min(count, (length - from) / step)
  means(src + (<usize>from << 2), step, dst, there)
  for (let i = there; i < count + 4; i++) store<f32>(dst + (<usize>i << 2), 0)
}

/** Sum of squares, over both channels, of `count` frames of stereo after two second-order sections one behind the other (transposed direct form II). `filter`: f64[10], b0 b1 b2 a1 a2 of each; `state`: f64[8], four of each channel, kept. */
export function weigh(src: usize, count: i32, filter: usize, state: usize): f64 {
  const b0 = v128.load64_splat(filter)
  const b1 = v128.load64_splat(filter, 8)
  const b2 = v128.load64_splat(filter, 16)
  const a1 = v128.load64_splat(filter, 24)
  const a2 = v128.load64_splat(filter, 32)
  const c0 = v128.load64_splat(filter, 40)
  const c1 = v128.load64_splat(filter, 48)
  const c2 = v128.load64_splat(filter, 56)
  const d1 = v128.load64_splat(filter, 64)
  const d2 = v128.load64_splat(filter, 72)
  let z1 = f64x2(load<f64>(state), load<f64>(state, 32))
  let z2 = f64x2(load<f64>(state, 8), load<f64>(state, 40))
  let y1 = f64x2(load<f64>(state, 16), load<f64>(state, 48))
  let y2 = f64x2(load<f64>(state, 24), load<f64>(state, 56))
  let sum = f64x2.splat(0)
  for (let i = 0; i < count; i++) {
    const x = f64x2.promote_low_f32x4(v128.load64_zero(src + (<usize>i << 3)))
    const shelved = f64x2.add(f64x2.mul(b0, x), z1)
    z1 = f64x2.add(f64x2.sub(f64x2.mul(b1, x), f64x2.mul(a1, shelved)), z2)
    z2 = f64x2.sub(f64x2.mul(b2, x), f64x2.mul(a2, shelved))
    const out = f64x2.add(f64x2.mul(c0, shelved), y1)
    y1 = f64x2.add(f64x2.sub(f64x2.mul(c1, shelved), f64x2.mul(d1, out)), y2)
    y2 = f64x2.sub(f64x2.mul(c2, shelved), f64x2.mul(d2, out))
    sum = f64x2.add(sum, f64x2.mul(out, out))
  }
  keep(state, z1, z2, y1, y2)
  return f64x2.extract_lane(sum, 0) + f64x2.extract_lane(sum, 1)
}

function keep(state: usize, z1: v128, z2: v128, y1: v128, y2: v128): void {
  store<f64>(state, f64x2.extract_lane(z1, 0))
  store<f64>(state, f64x2.extract_lane(z2, 0), 8)
  store<f64>(state, f64x2.extract_lane(y1, 0), 16)
  store<f64>(state, f64x2.extract_lane(y2, 0), 24)
  store<f64>(state, f64x2.extract_lane(z1, 1), 32)
  store<f64>(state, f64x2.extract_lane(z2, 1), 40)
  store<f64>(state, f64x2.extract_lane(y1, 1), 48)
  store<f64>(state, f64x2.extract_lane(y2, 1), 56)
}

/**
 * Stereo at another rate: `count` frames into `dst` (f32[2 * count]), of which the first looks at `src` from frame `next` / `up` on and each later one `down` / `up` frames farther.
 * `filter`: f32[up][taps], the oldest sample's coefficient first; `taps` is a multiple of 8, `next` less than `up`.
 */
export function changeRate(src: usize, next: i32, up: i32, down: i32, filter: usize, taps: i32, dst: usize, count: i32): void {
  const row = <usize>taps << 2
  let phase = next
  for (let n = 0; n < count; n++) {
    let h = filter + <usize>phase * row
    const end = h + row
    let a = f32x4.splat(0)
    let b = f32x4.splat(0)
    let c = f32x4.splat(0)
    let d = f32x4.splat(0)
    // Two frames of both channels in a vector, and four that do not wait for each other.
    for (let x = src; h < end; h += 32, x += 64) {
      const first = v128.load(h)
      const second = v128.load(h, 16)
      a = f32x4.add(a, f32x4.mul(v128.load(x), v128.shuffle<f32>(first, first, 0, 0, 1, 1)))
      b = f32x4.add(b, f32x4.mul(v128.load(x, 16), v128.shuffle<f32>(first, first, 2, 2, 3, 3)))
      c = f32x4.add(c, f32x4.mul(v128.load(x, 32), v128.shuffle<f32>(second, second, 0, 0, 1, 1)))
      d = f32x4.add(d, f32x4.mul(v128.load(x, 48), v128.shuffle<f32>(second, second, 2, 2, 3, 3)))
    }
    a = f32x4.add(f32x4.add(a, b), f32x4.add(c, d))
    v128.store64_lane(dst + (<usize>n << 3), f32x4.add(a, v128.shuffle<f32>(a, a, 2, 3, 0, 1)), 0)
    for (phase += down; phase >= up; phase -= up) src += 8
  }
}
