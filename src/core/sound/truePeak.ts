import { PEAK_TAPS, PLAIN_ARITHMETIC, type SoundArithmetic } from './arithmetic'

/** The height of a wave between its samples too: interleaved stereo, block after block. */
export class TruePeaks {
  /** The last frames, for the filter to go on from. */
  private readonly tail = new Float32Array(2 * (PEAK_TAPS - 1))

  constructor(private readonly arithmetic: SoundArithmetic = PLAIN_ARITHMETIC) {}

  /**
   * For each new frame the highest absolute value of the four that the filter makes of it and those before, of either
   * channel; where none is above `above`, 0 may stand instead. And the highest of all.
   */
  push(stereo: Float32Array, above: number): { peaks: Float32Array; highest: number } {
    const all = new Float32Array(this.tail.length + stereo.length)
    all.set(this.tail)
    all.set(stereo, this.tail.length)
    const peaks = new Float32Array(stereo.length / 2)
    const highest = this.arithmetic.oversample(all, peaks, above)
    this.tail.set(all.subarray(all.length - this.tail.length))
    return { peaks, highest }
  }
}
