import { KWeighting, toLufs } from '../sound/kWeighting'
import { MICROS_PER_SECOND, type Micros } from '../time/micros'
import { LOUDNESS_STEP_MICROS, stepsInPart, WAVE_STEP_MICROS, type SoundPart } from './analysis'

/**
 * Measures a part's waveform and loudness from planar sound. `mono` is the channels' mean, which loudness is told
 * from: half the work of telling it channel by channel, and the same for what is alike in all. What lies before the
 * part (the first `leadMicros`) settles the filters and leaves nothing else.
 */
export function soundSteps(
  channels: readonly Float32Array[],
  mono: Float32Array,
  sampleRate: number,
  leadMicros: Micros,
  partIndex: number,
  durationMicros: Micros,
): Pick<SoundPart, 'peaks' | 'rms' | 'loudness'> {
  const steps = stepsInPart(partIndex, durationMicros, WAVE_STEP_MICROS)
  const peaks = new Uint8Array(steps)
  const rms = new Uint8Array(steps)
  const loud = new Float64Array(stepsInPart(partIndex, durationMicros, LOUDNESS_STEP_MICROS))
  const weights = new KWeighting(sampleRate)
  const lead = Math.round((leadMicros * sampleRate) / MICROS_PER_SECOND)
  const perStep = (WAVE_STEP_MICROS * sampleRate) / MICROS_PER_SECOND
  weights.sumOfSquares(mono, 0, lead)
  for (let step = 0; step < steps; step++) {
    const from = lead + Math.round(step * perStep)
    const to = Math.min(mono.length, lead + Math.round((step + 1) * perStep))
    const { peak, squares } = levelOfStep(channels, from, to)
    peaks[step] = Math.min(255, Math.round(peak * 255))
    rms[step] = Math.min(255, Math.round(Math.sqrt(squares / Math.max(1, (to - from) * channels.length)) * 255))
    const tenth = Math.floor((step * WAVE_STEP_MICROS) / LOUDNESS_STEP_MICROS)
    loud[tenth] = (loud[tenth] as number) + weights.sumOfSquares(mono, from, to)
  }
  const perTenth = (LOUDNESS_STEP_MICROS * sampleRate) / MICROS_PER_SECOND
  return { peaks, rms, loudness: Float32Array.from(loud, (s) => toLufs((2 * s) / perTenth)) }
}

function levelOfStep(channels: readonly Float32Array[], from: number, to: number): { peak: number; squares: number } {
  let peak = 0
  let squares = 0
  for (const channel of channels)
    for (let i = from; i < to; i++) {
      const v = channel[i] as number
      squares += v * v
      if (v > peak) peak = v
      else if (-v > peak) peak = -v
    }
  return { peak, squares }
}
