import { weighed } from './arithmetic'

/** Coefficients of a second-order section, a0 = 1. */
interface Biquad {
  b0: number
  b1: number
  b2: number
  a1: number
  a2: number
}

/**
 * The two filters of K-weighting (ITU-R BS.1770-4, annex 1) for any sample rate. The standard gives coefficients for
 * 48 kHz only; these are the analogue prototypes behind them (shelf: 1681.97 Hz, +4 dB, Q 0.7072; high pass: 38.14
 * Hz, Q 0.5003), transformed bilinearly.
 */
function kWeightingSections(sampleRate: number): [Biquad, Biquad] {
  return [shelf(sampleRate), highPass(sampleRate)]
}

function shelf(sampleRate: number): Biquad {
  const k = Math.tan((Math.PI * 1681.974450955533) / sampleRate)
  const vh = 10 ** (3.999843853973347 / 20)
  const vb = vh ** 0.4996667741545416
  const q = 0.7071752369554196
  const a0 = 1 + k / q + k * k
  return {
    b0: (vh + (vb * k) / q + k * k) / a0,
    b1: (2 * (k * k - vh)) / a0,
    b2: (vh - (vb * k) / q + k * k) / a0,
    a1: (2 * (k * k - 1)) / a0,
    a2: (1 - k / q + k * k) / a0,
  }
}

function highPass(sampleRate: number): Biquad {
  const k = Math.tan((Math.PI * 38.13547087602444) / sampleRate)
  const q = 0.5003270373238773
  const a0 = 1 + k / q + k * k
  return { b0: 1, b1: -2, b2: 1, a1: (2 * (k * k - 1)) / a0, a2: (1 - k / q + k * k) / a0 }
}

/** Both sections one behind the other: b0 b1 b2 a1 a2 of each. */
export function kWeightingFilter(sampleRate: number): Float64Array {
  return Float64Array.from(kWeightingSections(sampleRate).flatMap(({ b0, b1, b2, a1, a2 }) => [b0, b1, b2, a1, a2]))
}

/** K-weights one channel, block after block; keeps its state between blocks. */
export class KWeighting {
  private readonly filter: Float64Array
  private readonly state = new Float64Array(4)

  constructor(sampleRate: number) {
    this.filter = kWeightingFilter(sampleRate)
  }

  /** Sum of squares of samples `from` up to, not including, `to` after both filters. */
  sumOfSquares(samples: Float32Array, from: number, to: number): number {
    return weighed(samples, from, to, 1, this.filter, this.state)
  }
}

/** Loudness, LUFS, of the sum over channels of mean squares of K-weighted samples; silence is −120. */
export function toLufs(sumOfMeanSquares: number): number {
  return sumOfMeanSquares <= 1e-12 ? -120 : -0.691 + 10 * Math.log10(sumOfMeanSquares)
}
