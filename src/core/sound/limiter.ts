import { PEAK_TAPS, PLAIN_ARITHMETIC, type SoundArithmetic } from './arithmetic'
import { concatenated } from './concatenated'
import { channelsOf, TruePeaks } from './truePeak'

/** The gain goes down over this long before a peak, and comes up again at this pace after it. */
const AHEAD_SECONDS = 0.005
const RELEASE_SECONDS = 0.15

/** Turning sound down in time moves what lies between samples a little: so much is kept free, dB. */
const KEPT_FREE_DB = 0.1

/**
 * Holds the true peaks of interleaved stereo under a ceiling (dBTP) by turning both channels down round each peak, and no more than that. What it
 * gives back is as long as what it was given in all, and comes late: the rest comes with `end`. Sound that is under the ceiling comes back as it was.
 */
export class Limiter {
  private readonly ceiling: number
  private readonly ahead: number
  private readonly release: number
  private readonly peaks: readonly [TruePeaks, TruePeaks]
  /** Sound given and not given back yet, and the gain that each of its frames needs by itself. */
  private waiting = new Float32Array(0)
  private needed = new Float32Array(0)
  private begun = false
  /** How many of the waiting frames have been looked at. */
  private looked = 0
  /** The least gains within reach, as a ring: waiting frames that no later one looked at needs as much as. Frames count from the first that waits. */
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
    this.peaks = [new TruePeaks(arithmetic), new TruePeaks(arithmetic)]
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
    const frames = stereo.length / 2
    const channels = channelsOf(stereo)
    const left = this.peaks[0].push(channels[0], this.ceiling)
    const right = this.peaks[1].push(channels[1], this.ceiling)
    const needed = new Float32Array(frames).fill(1)
    for (let i = 0; i < frames; i++) {
      const l = left[i] as number
      const r = right[i] as number
      const peak = l > r ? l : r
      if (peak > this.ceiling) needed[i] = this.ceiling / peak
    }
    this.needed = concatenated([this.needed, needed])
    this.waiting = concatenated([this.waiting, stereo])
    return this.take(this.waiting.length / 2 - this.reach)
  }

  /** What is still to come. */
  end(): Float32Array {
    return this.take(this.waiting.length / 2)
  }

  /** So far ahead a peak is seen: its filter's half, and as long as the gain takes to go down, and as the way down is evened. */
  private get reach(): number {
    return this.ahead + PEAK_TAPS
  }

  private take(frames: number): Float32Array {
    const count = Math.max(0, frames)
    if (!this.begun && count > 0) this.begin()
    const out = new Float32Array(count * 2)
    const { waiting, recent, ahead, release } = this
    let { place, recentSum, released } = this
    for (let i = 0; i < count; i++) {
      const least = this.leastFrom(i)
      const risen = released + (1 - released) * release
      released = least < risen ? least : risen
      recentSum += released - (recent[place] as number)
      recent[place] = released
      if (++place === ahead) place = 0
      const mean = recentSum / ahead
      const gain = mean < 1 ? mean : 1
      out[2 * i] = (waiting[2 * i] as number) * gain
      out[2 * i + 1] = (waiting[2 * i + 1] as number) * gain
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
  private begin(): void {
    this.begun = true
    this.released = this.leastFrom(0)
    this.recent.fill(this.released)
    this.recentSum = this.released * this.ahead
  }

  /** The least gain that any waiting frame from this one on needs, as far as is looked ahead. Asked for rising frames. */
  private leastFrom(frame: number): number {
    const { leastAt, leastGain, needed } = this
    const mask = leastAt.length - 1
    const end = Math.min(needed.length, frame + this.reach)
    for (; this.looked < end; this.looked++) {
      const gain = needed[this.looked] as number
      if (gain >= 1) continue
      while (this.last > this.first && (leastGain[(this.last - 1) & mask] as number) >= gain) this.last--
      leastAt[this.last & mask] = this.looked
      leastGain[this.last++ & mask] = gain
    }
    while (this.first < this.last && (leastAt[this.first & mask] as number) < frame) this.first++
    return this.first < this.last ? (leastGain[this.first & mask] as number) : 1
  }
}
