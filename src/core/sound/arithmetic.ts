/** Coefficients of the four-times oversampling filter of BS.1770-4, annex 2; the last two phases are the first two turned round. The newest sample's comes first. */
const P0 = Float64Array.of(0.001708984375, 0.010986328125, -0.0196533203125, 0.033203125, -0.0594482421875, 0.1373291015625, 0.97216796875, -0.102294921875, 0.047607421875, -0.026611328125, 0.014892578125, -0.00830078125)
const P1 = Float64Array.of(-0.0291748046875, 0.029296875, -0.0517578125, 0.089111328125, -0.16650390625, 0.465087890625, 0.77978515625, -0.2003173828125, 0.1015625, -0.0582275390625, 0.0330810546875, -0.0189208984375)
const P2 = P1.toReversed()
const P3 = P0.toReversed()
export const PEAK_PHASES: readonly Float64Array[] = [P0, P1, P2, P3]

/** Samples that the filter looks at for one; what it tells about a sample lies up to half as far behind. */
export const PEAK_TAPS = 12

/** No wave is higher than its samples by more than this. */
const MOST_OVER = Math.max(...[P0, P1].map((phase) => phase.reduce((sum, h) => sum + Math.abs(h), 0)))

/** Samples that are looked at as one for whether they can matter at all. */
const CHUNK = 32

/** The inner loops of sound: in JavaScript here, in WebAssembly where it can be had (media/sound/soundKernel), which is some times as fast and rounds a little differently. */
export interface SoundArithmetic {
  /** Into `peaks`, for each sample, the highest absolute value of the four that the oversampling filter makes of it and those before; `all` has 11 more, before the first. Where none is above `above`, 0 may stand instead. */
  oversample(all: Float32Array, peaks: Float32Array, above: number): void
  /** Into `means`, those of so many samples each, one after the other. */
  means(samples: Float32Array, step: number, means: Float32Array): void
  /** Of `starts` neighbouring starts in `heard`, which is `like.length` longer, the one that is most like `like`: normalised cross-correlation. */
  bestOf(heard: Float32Array, starts: number, like: Float32Array): number
  /** Sum of squares of samples `from` up to, not including, `to` after two second-order sections (`filter`: b0 b1 b2 a1 a2 of each), whose `state` (four numbers) goes on. */
  weigh(samples: Float32Array, from: number, to: number, filter: Float64Array, state: Float64Array): number
}

export const PLAIN_ARITHMETIC: SoundArithmetic = {
  oversample(all, peaks, above) {
    for (let from = 0; from < peaks.length; from += CHUNK) {
      const to = Math.min(peaks.length, from + CHUNK)
      if (highest(all, from, to + PEAK_TAPS - 1) * MOST_OVER <= above) continue
      for (let n = from; n < to; n++) {
        const end = n + PEAK_TAPS - 1
        peaks[n] = Math.max(Math.abs(filtered(P0, all, end)), Math.abs(filtered(P1, all, end)), Math.abs(filtered(P2, all, end)), Math.abs(filtered(P3, all, end)))
      }
    }
  },

  means(samples, step, means) {
    for (let i = 0, at = 0; i < means.length; i++) {
      let sum = 0
      for (const end = at + step; at < end; at++) sum += samples[at] as number
      means[i] = sum / step
    }
  },

  bestOf(heard, starts, like) {
    // The energy of each start follows from that of the one before.
    let energy = 1e-9
    for (let i = 0; i < like.length; i++) energy += (heard[i] as number) ** 2
    let [found, most] = [0, -Infinity]
    for (let n = 0; n < starts; n++) {
      const likeness = dot(heard, n, like) / Math.sqrt(Math.max(1e-9, energy))
      if (likeness > most + 1e-12) [most, found] = [likeness, n]
      energy += (heard[n + like.length] as number) ** 2 - (heard[n] as number) ** 2
    }
    return found
  },

  weigh(samples, from, to, filter, state) {
    const [b0 = 0, b1 = 0, b2 = 0, a1 = 0, a2 = 0, c0 = 0, c1 = 0, c2 = 0, d1 = 0, d2 = 0] = filter
    let [z1 = 0, z2 = 0, y1 = 0, y2 = 0] = state
    let sum = 0
    for (let i = from; i < to; i++) {
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
  },
}

/** The highest absolute value of samples `from` up to, not including, `to`. */
export function highest(all: Float32Array, from = 0, to = all.length): number {
  let most = 0
  for (let i = from; i < to; i++) {
    const value = all[i] as number
    const height = value < 0 ? -value : value
    if (height > most) most = height
  }
  return most
}

/** One phase of the filter at a sample. Written out, and reading each kind of array in a way of its own: a loop takes five times as long. */
function filtered(h: Float64Array, x: Float32Array, n: number): number {
  return tap(h, 0) * sample(x, n) + tap(h, 1) * sample(x, n - 1) + tap(h, 2) * sample(x, n - 2) + tap(h, 3) * sample(x, n - 3) + tap(h, 4) * sample(x, n - 4) + tap(h, 5) * sample(x, n - 5) + tap(h, 6) * sample(x, n - 6) + tap(h, 7) * sample(x, n - 7) + tap(h, 8) * sample(x, n - 8) + tap(h, 9) * sample(x, n - 9) + tap(h, 10) * sample(x, n - 10) + tap(h, 11) * sample(x, n - 11)
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
