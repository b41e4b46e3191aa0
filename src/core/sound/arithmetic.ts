import type { RateFilter } from './rateChange'

/**
 * Coefficients of the four-times oversampling filter of BS.1770-4, annex 2; the last two phases are the first two
 * turned round. The newest sample's comes first.
 */
const P0 = Float64Array.of(
  0.001708984375,
  0.010986328125,
  -0.0196533203125,
  0.033203125,
  -0.0594482421875,
  0.1373291015625,
  0.97216796875,
  -0.102294921875,
  0.047607421875,
  -0.026611328125,
  0.014892578125,
  -0.00830078125,
)
const P1 = Float64Array.of(
  -0.0291748046875,
  0.029296875,
  -0.0517578125,
  0.089111328125,
  -0.16650390625,
  0.465087890625,
  0.77978515625,
  -0.2003173828125,
  0.1015625,
  -0.0582275390625,
  0.0330810546875,
  -0.0189208984375,
)
const P2 = P1.toReversed()
const P3 = P0.toReversed()
export const PEAK_PHASES: readonly Float64Array[] = [P0, P1, P2, P3]

/** Samples that the filter looks at for one; what it tells about a sample lies up to half as far behind. */
export const PEAK_TAPS = 12

/** No wave is higher than its samples by more than this. */
export const MAX_OVER = Math.max(...[P0, P1].map((phase) => phase.reduce((sum, h) => sum + Math.abs(h), 0)))

/** Samples that are looked at as one for whether they can matter at all. */
const CHUNK = 32

/**
 * How far a piece may be moved to fit, in steps; candidates are compared in means of so many samples first (6 kHz at
 * 48 kHz: a voice's pitch and vowels), and what is best there is refined twice.
 */
const FIT_STEPS = [8, 2, 1] as const

/**
 * The inner loops of sound: in JavaScript here, in WebAssembly where it can be had (media/sound/soundKernel), which
 * is some times as fast and rounds a little differently. Stereo is interleaved.
 */
export interface SoundArithmetic {
  /**
   * Into `peaks`, for each frame, the highest absolute value of the four that the oversampling filter makes of it and
   * those before, of either channel; `stereo` has 11 frames more, before the first. Where none is above `above`, 0
   * may stand instead. Gives the highest of all.
   */
  oversample(stereo: Float32Array, peaks: Float32Array, above: number): number
  /**
   * Sum of squares, over both channels, of frames `from` up to, not including, `to` after two second-order sections
   * (`filter`: b0 b1 b2 a1 a2 of each), whose `state` (four numbers a channel) goes on.
   */
  weigh(stereo: Float32Array, from: number, to: number, filter: Float64Array, state: Float64Array): number
  /**
   * Finds where in `heard` a stretch as long as `tail` begins that is most like it (normalised cross-correlation of
   * both channels' sum, looked for coarsely first), of all starts that leave as much again behind it; crosses over
   * from `tail` to it, into `crossed`, by the gains `fade`. Gives the start, in frames.
   */
  goOn(heard: Float32Array, tail: Float32Array, fade: Float32Array, crossed: Float32Array): number
  /**
   * Fills `out` with frames of another rate: the first looks at `heard` from `next` / `filter.up` frames behind its
   * first on, each later one `filter.down` / `filter.up` frames farther.
   */
  changeRate(heard: Float32Array, filter: RateFilter, next: number, out: Float32Array): void
}

export const PLAIN_ARITHMETIC: SoundArithmetic = {
  oversample(stereo, peaks, above) {
    let most = 0
    for (let from = 0; from < peaks.length; from += CHUNK) {
      const to = Math.min(peaks.length, from + CHUNK)
      if (highest(stereo, 2 * from, 2 * (to + PEAK_TAPS - 1)) * MAX_OVER <= above) {
        peaks.fill(0, from, to)
        continue
      }
      for (let n = from; n < to; n++) {
        const end = 2 * (n + PEAK_TAPS - 1)
        const peak = Math.max(highestOfPhases(stereo, end), highestOfPhases(stereo, end + 1))
        peaks[n] = peak
        if (peak > most) most = peak
      }
    }
    return most
  },

  weigh(stereo, from, to, filter, state) {
    return (
      weighed(stereo, 2 * from, 2 * to, 2, filter, state.subarray(0, 4)) +
      weighed(stereo, 2 * from + 1, 2 * to + 1, 2, filter, state.subarray(4))
    )
  },

  goOn(heard, tail, fade, crossed) {
    const fit = bestFit(inOne(heard.subarray(0, heard.length - tail.length)), inOne(tail))
    const from = 2 * fit
    for (let i = 0, n = 0; i < fade.length; i++, n += 2) {
      const to = fade[i] as number
      crossed[n] = (tail[n] as number) * (1 - to) + (heard[from + n] as number) * to
      crossed[n + 1] = (tail[n + 1] as number) * (1 - to) + (heard[from + n + 1] as number) * to
    }
    return fit
  },

  changeRate(heard, { up, down, taps, coefs }, next, out) {
    for (let n = 0, at = next; n < out.length; n += 2, at += down) {
      const from = 2 * Math.floor(at / up)
      const phase = (at % up) * taps
      let [left, right] = [0, 0]
      for (let k = 0; k < taps; k++) {
        const share = coefs[phase + k] as number
        left += share * (heard[from + 2 * k] as number)
        right += share * (heard[from + 2 * k + 1] as number)
      }
      out[n] = left
      out[n + 1] = right
    }
  },
}

/** Both channels added up. */
function inOne(stereo: Float32Array): Float32Array {
  const sum = new Float32Array(stereo.length / 2)
  for (let i = 0, n = 0; i < sum.length; i++, n += 2) sum[i] = (stereo[n] as number) + (stereo[n + 1] as number)
  return sum
}

/** Where in `heard` what is most like `like` begins, of all starts at which it fits. */
function bestFit(heard: Float32Array, like: Float32Array): number {
  const last = heard.length - like.length
  let [least, most, found] = [0, last, 0]
  for (const step of FIT_STEPS) {
    const shapes = meansOf(like, 0, Math.ceil(like.length / step), step)
    const starts = Math.floor((most - least) / step) + 1
    found = least + bestOf(meansOf(heard, least, starts + shapes.length, step), starts, shapes) * step
    least = Math.max(0, found - step)
    most = Math.min(last, found + step)
  }
  return found
}

/** Sum of squares of every `stride`th sample from `from` on, below `to`, after two second-order sections. */
export function weighed(
  samples: Float32Array,
  from: number,
  to: number,
  stride: number,
  filter: Float64Array,
  state: Float64Array,
): number {
  const [b0 = 0, b1 = 0, b2 = 0, a1 = 0, a2 = 0, c0 = 0, c1 = 0, c2 = 0, d1 = 0, d2 = 0] = filter
  let [z1 = 0, z2 = 0, y1 = 0, y2 = 0] = state
  let sum = 0
  for (let i = from; i < to; i += stride) {
    const x = samples[i] ?? 0
    const shelved = b0 * x + z1
    z1 = b1 * x - a1 * shelved + z2
    z2 = b2 * x - a2 * shelved
    const out = c0 * shelved + y1
    y1 = c1 * shelved - d1 * out + y2
    y2 = c2 * shelved - d2 * out
    sum += out * out
  }
  state.set([z1, z2, y1, y2])
  return sum
}

/** `count` means of `step` samples each, from sample `from` on; silence beyond the end. */
function meansOf(samples: Float32Array, from: number, count: number, step: number): Float32Array {
  const means = new Float32Array(count)
  for (let i = 0, at = from; i < count && at + step <= samples.length; i++) {
    let sum = 0
    for (const end = at + step; at < end; at++) sum += samples[at] as number
    means[i] = sum / step
  }
  return means
}

/** Of `starts` neighbouring starts in `heard`, which is `like.length` longer, the one that is most like `like`. */
function bestOf(heard: Float32Array, starts: number, like: Float32Array): number {
  // The energy of each start follows from that of the one before.
  let energy = 1e-9
  for (let i = 0; i < like.length; i++) energy += (heard[i] as number) ** 2
  let [found, most] = [0, -Infinity]
  for (let n = 0; n < starts; n++) {
    const likeness = dot(heard, n, like) / Math.sqrt(Math.max(1e-9, energy))
    if (likeness > most + 1e-12) {
      most = likeness
      found = n
    }
    energy += (heard[n + like.length] as number) ** 2 - (heard[n] as number) ** 2
  }
  return found
}

/** The highest absolute value of samples `from` up to, not including, `to`. */
function highest(all: Float32Array, from: number, to: number): number {
  let most = 0
  for (let i = from; i < to; i++) {
    const value = all[i] as number
    const height = value < 0 ? -value : value
    if (height > most) most = height
  }
  return most
}

const highestOfPhases = (x: Float32Array, n: number) =>
  Math.max(
    Math.abs(filtered(P0, x, n)),
    Math.abs(filtered(P1, x, n)),
    Math.abs(filtered(P2, x, n)),
    Math.abs(filtered(P3, x, n)),
  )

/**
 * One phase of the filter at a sample of one channel. Written out, and reading each kind of array in a way of its
 * own: a loop takes five times as long.
 */
function filtered(h: Float64Array, x: Float32Array, n: number): number {
  return (
    tap(h, 0) * sample(x, n) +
    tap(h, 1) * sample(x, n - 2) +
    tap(h, 2) * sample(x, n - 4) +
    tap(h, 3) * sample(x, n - 6) +
    tap(h, 4) * sample(x, n - 8) +
    tap(h, 5) * sample(x, n - 10) +
    tap(h, 6) * sample(x, n - 12) +
    tap(h, 7) * sample(x, n - 14) +
    tap(h, 8) * sample(x, n - 16) +
    tap(h, 9) * sample(x, n - 18) +
    tap(h, 10) * sample(x, n - 20) +
    tap(h, 11) * sample(x, n - 22)
  )
}

const tap = (h: Float64Array, i: number) => h[i] as number
const sample = (x: Float32Array, i: number) => x[i] as number

/** Four sums at a time: one would wait for itself at every step. */
function dot(of: Float32Array, from: number, like: Float32Array): number {
  const whole = like.length - (like.length % 4)
  let [a, b, c, d] = [0, 0, 0, 0]
  for (let i = 0; i < whole; i += 4) {
    a += (of[from + i] as number) * (like[i] as number)
    b += (of[from + i + 1] as number) * (like[i + 1] as number)
    c += (of[from + i + 2] as number) * (like[i + 2] as number)
    d += (of[from + i + 3] as number) * (like[i + 3] as number)
  }
  for (let i = whole; i < like.length; i++) a += (of[from + i] as number) * (like[i] as number)
  return a + b + (c + d)
}
