import { KWeighting, toLufs } from '../sound/kWeighting'
import type { Micros } from '../time/micros'
import { LOUDNESS_STEP_MICROS, stepsInPart, WAVE_STEP_MICROS, type SoundPart } from './analysis'

/**
 * Measures a part's waveform and loudness from planar sound that comes block by block, in order. Blocks before the part's start settle the
 * filters and leave nothing else; where nothing comes there is silence.
 */
export class SoundSteps {
  private readonly peaks: Uint8Array<ArrayBuffer>
  private readonly squares: Float64Array
  private readonly counts: Uint32Array
  private readonly loud: Float64Array
  private readonly weights: KWeighting[] = []

  constructor(
    private readonly sampleRate: number,
    partIndex: number,
    durationMicros: Micros,
  ) {
    const steps = stepsInPart(partIndex, durationMicros, WAVE_STEP_MICROS)
    this.peaks = new Uint8Array(steps)
    this.squares = new Float64Array(steps)
    this.counts = new Uint32Array(steps)
    this.loud = new Float64Array(stepsInPart(partIndex, durationMicros, LOUDNESS_STEP_MICROS))
  }

  /** A block whose first frame lies at `startMicros` from the part's start (negative: before it). */
  add(channels: readonly Float32Array[], startMicros: Micros): void {
    const frames = channels[0]?.length ?? 0
    const perStep = (WAVE_STEP_MICROS * this.sampleRate) / 1_000_000
    const first = (startMicros * this.sampleRate) / 1_000_000
    for (let at = 0; at < frames; ) {
      const step = Math.floor((first + at) / perStep + 1e-9)
      const end = Math.min(frames, Math.max(at + 1, Math.ceil((step + 1) * perStep - first)))
      this.addStep(channels, step, at, end)
      at = end
    }
  }

  private addStep(channels: readonly Float32Array[], step: number, from: number, to: number): void {
    let peak = 0
    let squares = 0
    let loud = 0
    channels.forEach((channel, c) => {
      this.weights[c] ??= new KWeighting(this.sampleRate)
      loud += this.weights[c].sumOfSquares(channel, from, to)
      for (let i = from; i < to; i++) {
        const v = channel[i] ?? 0
        squares += v * v
        if (v > peak) peak = v
        else if (-v > peak) peak = -v
      }
    })
    if (step < 0 || step >= this.peaks.length) return
    this.peaks[step] = Math.max(this.peaks[step] ?? 0, Math.min(255, Math.round(peak * 255)))
    this.squares[step] = (this.squares[step] ?? 0) + squares / channels.length
    this.counts[step] = (this.counts[step] ?? 0) + to - from
    const tenth = Math.floor((step * WAVE_STEP_MICROS) / LOUDNESS_STEP_MICROS)
    this.loud[tenth] = (this.loud[tenth] ?? 0) + loud
  }

  result(): Pick<SoundPart, 'peaks' | 'rms' | 'loudness'> {
    const rms = Uint8Array.from(this.squares, (s, i) => Math.min(255, Math.round(Math.sqrt(s / Math.max(1, this.counts[i] ?? 0)) * 255)))
    const perTenth = (LOUDNESS_STEP_MICROS * this.sampleRate) / 1_000_000
    return { peaks: this.peaks, rms, loudness: Float32Array.from(this.loud, (s) => toLufs(s / perTenth)) }
  }
}
