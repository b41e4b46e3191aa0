import { PEAK_TAPS, PLAIN_ARITHMETIC, type SoundArithmetic } from './arithmetic'

/** The height of a wave between its samples too, one channel, block after block. */
export class TruePeaks {
  /** The last samples, for the filter to go on from. */
  private readonly tail = new Float32Array(PEAK_TAPS - 1)

  constructor(private readonly arithmetic: SoundArithmetic = PLAIN_ARITHMETIC) {}

  /** For each new sample the highest absolute value of the four that the filter makes of it and those before; where none is above `above`, 0 may stand instead. */
  push(samples: Float32Array, above: number): Float32Array {
    const all = new Float32Array(this.tail.length + samples.length)
    all.set(this.tail)
    all.set(samples, this.tail.length)
    const peaks = new Float32Array(samples.length)
    this.arithmetic.oversample(all, peaks, above)
    this.tail.set(all.subarray(all.length - this.tail.length))
    return peaks
  }
}

/** The two channels of interleaved stereo. */
export function channelsOf(stereo: Float32Array): [Float32Array, Float32Array] {
  const [left, right] = [new Float32Array(stereo.length / 2), new Float32Array(stereo.length / 2)]
  for (let i = 0; i < left.length; i++) {
    left[i] = stereo[2 * i] as number
    right[i] = stereo[2 * i + 1] as number
  }
  return [left, right]
}
