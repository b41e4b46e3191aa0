import { PEAK_TAPS, PLAIN_ARITHMETIC, type SoundArithmetic } from './arithmetic'
import { concatenated } from './concatenated'
import { TruePeaks } from './truePeak'

/** The gain goes down over this long before a peak, and comes up again at this pace after it. */
const AHEAD_SECONDS = 0.005
const RELEASE_SECONDS = 0.15

/** Turning sound down in time moves what lies between samples a little: so much is kept free, dB. */
const KEPT_FREE_DB = 0.1

/**
 * Holds the true peaks of interleaved stereo under a ceiling (dBTP) by turning both channels down round each peak,
 * and no more than that. What it gives back is as long as what it was given in all, and comes late: the rest comes
 * with `end`. Sound that is under the ceiling comes back as it was.
 */
export class Limiter {
  private readonly ceiling: number
  private readonly ahead: number
  private readonly release: number
  private readonly peaks: TruePeaks
  /** Sound given and not given back yet, and the gain that each of its frames needs by itself. */
  private waiting = new Float32Array(0)
  private needed = new Float32Array(0)
  private begun = false
  /** How many of the waiting frames have been looked at. */
  private looked = 0
  /**
   * The least gains within reach, as a ring: waiting frames that no later one looked at needs as much as. Frames
   * count from the first that waits.
   */
  private readonly leastAt: Int32Array
  private readonly leastGain: Float32Array
  private first = 0
  private last = 0
  /** Gains of the frames before, whose mean is what is applied: a straight way down to a peak. */
  private readonly recent: Float64Array
  private recentSum: number
  private place = 0
  private released = 1

  constructor(sampleRate: number, ceilingDb: number, arithmetic: SoundArithmetic = PLAIN_ARITHMETIC) {
    this.peaks = new TruePeaks(arithmetic)
    this.ceiling = 10 ** ((ceilingDb - KEPT_FREE_DB) / 20)
    this.ahead = Math.round(AHEAD_SECONDS * sampleRate)
    this.release = 1 - Math.exp(-1 / (RELEASE_SECONDS * sampleRate))
    this.recent = new Float64Array(this.ahead).fill(1)
    this.recentSum = this.ahead
    const slots = 2 ** Math.ceil(Math.log2(this.reach + 2))
    this.leastAt = new Int32Array(slots)
    this.leastGain = new Float32Array(slots)
  }

  push(stereo: Float32Array): Float32Array {
    const { ceiling } = this
    const { peaks: needed } = this.peaks.push(stereo, ceiling)
    for (let i = 0; i < needed.length; i++) {
      const peak = needed[i] as number
      needed[i] = peak > ceiling ? ceiling / peak : 1
    }
    this.needed = concatenated([this.needed, needed])
    this.waiting = concatenated([this.waiting, stereo])
    return this.take(this.waiting.length / 2 - this.reach)
  }

  /** What is still to come. */
  end(): Float32Array {
    return this.take(this.waiting.length / 2)
  }

  /**
   * So far ahead a peak is seen: its filter's half, and as long as the gain takes to go down, and as the way down is
   * evened.
   */
  private get reach(): number {
    return this.ahead + PEAK_TAPS
  }

  private take(frames: number): Float32Array {
    const count = Math.max(0, frames)
    const least = this.leastGains(count)
    const out = new Float32Array(count * 2)
    const { waiting, recent, ahead, release } = this
    let { place, recentSum, released } = this
    for (let i = 0, n = 0; i < count; i++, n += 2) {
      const wanted = least[i] as number
      const risen = released + (1 - released) * release
      released = wanted < risen ? wanted : risen
      recentSum += released - (recent[place] as number)
      recent[place] = released
      if (++place === ahead) place = 0
      const mean = recentSum / ahead
      const gain = mean < 1 ? mean : 1
      out[n] = (waiting[n] as number) * gain
      out[n + 1] = (waiting[n + 1] as number) * gain
    }
    this.place = place
    this.recentSum = recentSum
    this.released = released
    this.letGo(count)
    return out
  }

  /** The first `count` frames do not wait any more. */
  private letGo(count: number): void {
    this.waiting = this.waiting.slice(count * 2)
    this.needed = this.needed.slice(count)
    this.looked -= count
    const mask = this.leastAt.length - 1
    for (let n = this.first; n < this.last; n++) this.leastAt[n & mask] = (this.leastAt[n & mask] as number) - count
  }

  /** There is no time before the start in which to go down. */
  private begin(first: number): void {
    this.begun = true
    this.released = first
    this.recent.fill(first)
    this.recentSum = first * this.ahead
  }

  /**
   * For each of the first `count` waiting frames the least gain that it or any later one needs, as far as is looked
   * ahead.
   */
  private leastGains(count: number): Float32Array {
    const least = new Float32Array(count)
    const { leastAt, leastGain, needed, reach } = this
    const mask = leastAt.length - 1
    let { first, last, looked } = this
    for (let frame = 0; frame < count; frame++) {
      const end = frame + reach < needed.length ? frame + reach : needed.length
      for (; looked < end; looked++) {
        const gain = needed[looked] as number
        if (gain >= 1) continue
        while (last > first && (leastGain[(last - 1) & mask] as number) >= gain) last--
        leastAt[last & mask] = looked
        leastGain[last++ & mask] = gain
      }
      while (first < last && (leastAt[first & mask] as number) < frame) first++
      least[frame] = first < last ? (leastGain[first & mask] as number) : 1
    }
    this.first = first
    this.last = last
    this.looked = looked
    if (!this.begun && count > 0) this.begin(least[0] as number)
    return least
  }
}
