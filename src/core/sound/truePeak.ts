/** Coefficients of the four-times oversampling filter of BS.1770-4, annex 2; the last two phases are the first two turned round. */
const PHASES: readonly (readonly number[])[] = (() => {
  const first = [0.001708984375, 0.010986328125, -0.0196533203125, 0.033203125, -0.0594482421875, 0.1373291015625, 0.97216796875, -0.102294921875, 0.047607421875, -0.026611328125, 0.014892578125, -0.00830078125]
  const second = [-0.0291748046875, 0.029296875, -0.0517578125, 0.089111328125, -0.16650390625, 0.465087890625, 0.77978515625, -0.2003173828125, 0.1015625, -0.0582275390625, 0.0330810546875, -0.0189208984375]
  return [first, second, second.toReversed(), first.toReversed()]
})()

/** Samples that the filter looks at for one; what it tells about a sample lies up to half as far behind. */
export const PEAK_TAPS = 12

/** The height of a wave between its samples too, one channel, block after block. */
export class TruePeaks {
  /** The last samples, for the filter to go on from. */
  private readonly tail = new Float32Array(PEAK_TAPS - 1)

  /** For each new sample the highest absolute value of the four that the filter makes of it and those before. */
  push(samples: Float32Array): Float32Array {
    const all = new Float32Array(this.tail.length + samples.length)
    all.set(this.tail)
    all.set(samples, this.tail.length)
    const peaks = new Float32Array(samples.length)
    for (let n = 0; n < samples.length; n++) {
      const end = n + PEAK_TAPS - 1
      let most = 0
      for (const phase of PHASES) {
        let value = 0
        for (let tap = 0; tap < PEAK_TAPS; tap++) value += (phase[tap] as number) * (all[end - tap] as number)
        const height = value < 0 ? -value : value
        if (height > most) most = height
      }
      peaks[n] = most
    }
    this.tail.set(all.subarray(all.length - this.tail.length))
    return peaks
  }
}
