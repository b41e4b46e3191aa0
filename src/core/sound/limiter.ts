import { concatenated } from './concatenated'
import { channelsOf, PEAK_TAPS, TruePeaks } from './truePeak'

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
  private readonly peaks = [new TruePeaks(), new TruePeaks()] as const
  /** Sound given and not given back yet, and how many frames have been given back. */
  private waiting = new Float32Array(0)
  private given = 0
  private seen = 0
  /** Frames that must be turned down, with the gains they need: those that are still out of sight, and those within reach that no later one within reach outdoes. */
  private readonly coming: { frame: number; gain: number }[] = []
  private taken = 0
  private readonly within: { frame: number; gain: number }[] = []
  /** Gains of the frames before, whose mean is what is applied: a straight way down to a peak. */
  private readonly recent: number[]
  private recentSum: number
  private place = 0
  private released = 1

  constructor(sampleRate: number, ceilingDb: number) {
    this.ceiling = 10 ** ((ceilingDb - KEPT_FREE_DB) / 20)
    this.ahead = Math.round(AHEAD_SECONDS * sampleRate)
    this.release = 1 - Math.exp(-1 / (RELEASE_SECONDS * sampleRate))
    this.recent = new Array<number>(this.ahead).fill(1)
    this.recentSum = this.ahead
  }

  push(stereo: Float32Array): Float32Array {
    const frames = stereo.length / 2
    const channels = channelsOf(stereo)
    const left = this.peaks[0].push(channels[0], this.ceiling)
    const right = this.peaks[1].push(channels[1], this.ceiling)
    for (let i = 0; i < frames; i++) {
      const peak = Math.max(left[i] as number, right[i] as number)
      if (peak > this.ceiling) this.coming.push({ frame: this.seen + i, gain: this.ceiling / peak })
    }
    this.seen += frames
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
    if (this.given === 0 && count > 0) this.begin()
    const out = new Float32Array(count * 2)
    for (let i = 0; i < count; i++) {
      const least = this.leastFrom(this.given + i)
      this.released = Math.min(least, this.released + (1 - this.released) * this.release)
      this.recentSum += this.released - (this.recent[this.place] as number)
      this.recent[this.place] = this.released
      this.place = (this.place + 1) % this.ahead
      const gain = Math.min(1, this.recentSum / this.ahead)
      out[2 * i] = (this.waiting[2 * i] as number) * gain
      out[2 * i + 1] = (this.waiting[2 * i + 1] as number) * gain
    }
    this.waiting = this.waiting.slice(count * 2)
    this.given += count
    this.coming.splice(0, this.taken)
    this.taken = 0
    return out
  }

  /** There is no time before the start in which to go down. */
  private begin(): void {
    this.released = this.leastFrom(0)
    this.recent.fill(this.released)
    this.recentSum = this.released * this.ahead
  }

  /** The least gain that any frame from this one on needs, as far as is looked ahead. Asked for rising frames. */
  private leastFrom(frame: number): number {
    for (let next = this.coming[this.taken]; next && next.frame < frame + this.reach; next = this.coming[++this.taken]) {
      while ((this.within.at(-1)?.gain ?? 0) >= next.gain) this.within.pop()
      this.within.push(next)
    }
    while (this.within[0] && this.within[0].frame < frame) this.within.shift()
    return this.within[0]?.gain ?? 1
  }
}
