import { PLAIN_ARITHMETIC, type SoundArithmetic } from './arithmetic'
import { kWeightingFilter, toLufs } from './kWeighting'
import { toDecibels } from './levels'
import { TruePeaks } from './truePeak'

/**
 * Sums are kept for each tenth of a second; a gating block is four of them, each beginning with the next tenth
 * (BS.1770-4).
 */
const STEPS_PER_SECOND = 10
const STEPS_PER_BLOCK = 4
/** Blocks quieter than this are silence; those that are so much quieter than the mean of the rest are left out. */
const ABSOLUTE_GATE = -70
const RELATIVE_GATE = -10

/** How loud something is. `lufs` and `peakDb` are −120 for silence. */
export interface Loudness {
  /** Integrated, gated: LUFS. */
  lufs: number
  /** True peak, dBTP: of the wave between samples too. */
  peakDb: number
  /** Momentary loudness, LUFS, of the 0.4 s that end with each tenth of a second, from 0.4 s on. */
  momentary: number[]
}

/** Measures interleaved stereo block after block: ITU-R BS.1770-4, with gating and true peak. */
export class LoudnessMeter {
  private readonly filter: Float64Array
  private readonly filterState = new Float64Array(8)
  private readonly stepFrames: number
  private readonly steps: number[] = []
  private sum = 0
  private inStep = 0
  private peak = 0
  private readonly peaks: TruePeaks

  constructor(
    sampleRate: number,
    private readonly arithmetic: SoundArithmetic = PLAIN_ARITHMETIC,
  ) {
    this.filter = kWeightingFilter(sampleRate)
    this.peaks = new TruePeaks(arithmetic)
    this.stepFrames = Math.round(sampleRate / STEPS_PER_SECOND)
  }

  push(stereo: Float32Array): void {
    const frames = stereo.length / 2
    this.peak = Math.max(this.peak, this.peaks.push(stereo, this.peak).highest)
    for (let from = 0; from < frames;) {
      const to = Math.min(frames, from + this.stepFrames - this.inStep)
      this.sum += this.arithmetic.weigh(stereo, from, to, this.filter, this.filterState)
      this.inStep += to - from
      from = to
      if (this.inStep < this.stepFrames) break
      this.steps.push(this.sum / this.stepFrames)
      this.sum = 0
      this.inStep = 0
    }
  }

  /**
   * What has been measured so far. Less than 0.4 s of sound cannot be gated: it is silence by this measure, but for
   * its peak.
   */
  loudness(): Loudness {
    const blocks = this.steps
      .slice(STEPS_PER_BLOCK - 1)
      .map((_, i) => this.steps.slice(i, i + STEPS_PER_BLOCK).reduce((a, b) => a + b, 0) / STEPS_PER_BLOCK)
    const mean = (of: readonly number[]) => (of.length === 0 ? 0 : of.reduce((a, b) => a + b, 0) / of.length)
    const heard = blocks.filter((b) => toLufs(b) > ABSOLUTE_GATE)
    const gate = toLufs(mean(heard)) + RELATIVE_GATE
    return {
      lufs: toLufs(mean(heard.filter((b) => toLufs(b) > gate))),
      peakDb: toDecibels(this.peak),
      momentary: blocks.map(toLufs),
    }
  }
}
