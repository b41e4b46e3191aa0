/** Coefficients of the four-times oversampling filter of BS.1770-4, annex 2; the last two phases are the first two turned round. */
const P0 = Float64Array.of(0.001708984375, 0.010986328125, -0.0196533203125, 0.033203125, -0.0594482421875, 0.1373291015625, 0.97216796875, -0.102294921875, 0.047607421875, -0.026611328125, 0.014892578125, -0.00830078125)
const P1 = Float64Array.of(-0.0291748046875, 0.029296875, -0.0517578125, 0.089111328125, -0.16650390625, 0.465087890625, 0.77978515625, -0.2003173828125, 0.1015625, -0.0582275390625, 0.0330810546875, -0.0189208984375)
const P2 = P1.toReversed()
const P3 = P0.toReversed()

/** Samples that the filter looks at for one; what it tells about a sample lies up to half as far behind. */
export const PEAK_TAPS = 12

/** No wave is higher than its samples by more than this. */
const MOST_OVER = Math.max(...[P0, P1].map((phase) => phase.reduce((sum, h) => sum + Math.abs(h), 0)))

/** Samples that are looked at as one for whether they can matter at all. */
const CHUNK = 32

/** The height of a wave between its samples too, one channel, block after block. */
export class TruePeaks {
  /** The last samples, for the filter to go on from. */
  private readonly tail = new Float32Array(PEAK_TAPS - 1)

  /** For each new sample the highest absolute value of the four that the filter makes of it and those before; where none is above `above`, 0 may stand instead, at a fraction of the work. */
  push(samples: Float32Array, above: number): Float32Array {
    const all = new Float32Array(this.tail.length + samples.length)
    all.set(this.tail)
    all.set(samples, this.tail.length)
    const peaks = new Float32Array(samples.length)
    for (let from = 0; from < samples.length; from += CHUNK) {
      const to = Math.min(samples.length, from + CHUNK)
      if (highest(all, from, to + PEAK_TAPS - 1) * MOST_OVER > above) oversample(all, from, to, peaks)
    }
    this.tail.set(all.subarray(all.length - this.tail.length))
    return peaks
  }
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

function oversample(all: Float32Array, from: number, to: number, peaks: Float32Array): void {
  for (let n = from; n < to; n++) {
    const end = n + PEAK_TAPS - 1
    peaks[n] = Math.max(Math.abs(filtered(P0, all, end)), Math.abs(filtered(P1, all, end)), Math.abs(filtered(P2, all, end)), Math.abs(filtered(P3, all, end)))
  }
}

/** One phase of the filter at a sample. Written out, and reading each kind of array in a way of its own: a loop takes five times as long. */
function filtered(h: Float64Array, x: Float32Array, n: number): number {
  return tap(h, 0) * sample(x, n) + tap(h, 1) * sample(x, n - 1) + tap(h, 2) * sample(x, n - 2) + tap(h, 3) * sample(x, n - 3) + tap(h, 4) * sample(x, n - 4) + tap(h, 5) * sample(x, n - 5) + tap(h, 6) * sample(x, n - 6) + tap(h, 7) * sample(x, n - 7) + tap(h, 8) * sample(x, n - 8) + tap(h, 9) * sample(x, n - 9) + tap(h, 10) * sample(x, n - 10) + tap(h, 11) * sample(x, n - 11)
}

const tap = (h: Float64Array, i: number) => h[i] as number
const sample = (x: Float32Array, i: number) => x[i] as number

/** The two channels of interleaved stereo. */
export function channelsOf(stereo: Float32Array): [Float32Array, Float32Array] {
  const [left, right] = [new Float32Array(stereo.length / 2), new Float32Array(stereo.length / 2)]
  for (let i = 0; i < left.length; i++) {
    left[i] = stereo[2 * i] as number
    right[i] = stereo[2 * i + 1] as number
  }
  return [left, right]
}
