import { PART_MICROS, type SoundPart } from '@/core/detect/analysis'
import { soundSteps } from '@/core/detect/soundSteps'
import { decimate } from '@/core/sound/decimate'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import type { DecodedPart } from './decodePart'
import { SPEECH_SAMPLE_RATE } from './speechDetector'

/** What was heard of a part, but for where speech is: `mono` is what tells that, at {@link SPEECH_SAMPLE_RATE}, exactly as long as the part. */
export interface MeasuredPart {
  index: number
  measured: Omit<SoundPart, 'speech'>
  mono: Float32Array
}

/** Measures a decoded part's waveform and loudness, and brings its sound down for the speech model. */
export function measurePart({ index, durationMicros, leadMicros, sampleRate, channels }: DecodedPart): MeasuredPart {
  const mixed = meanOf(channels)
  const measured = soundSteps(channels, mixed, sampleRate, leadMicros, index, durationMicros)
  const lead = Math.round((leadMicros * SPEECH_SAMPLE_RATE) / MICROS_PER_SECOND)
  const length = Math.round((Math.min(PART_MICROS, durationMicros - index * PART_MICROS) * SPEECH_SAMPLE_RATE) / MICROS_PER_SECOND)
  const mono = new Float32Array(length)
  mono.set(atSpeechRate(mixed, sampleRate).subarray(lead, lead + length))
  return { index, measured, mono }
}

function meanOf(channels: readonly Float32Array[]): Float32Array {
  const mono = new Float32Array(channels[0]?.length ?? 0)
  const share = 1 / Math.max(1, channels.length)
  for (const channel of channels) for (let i = 0; i < mono.length; i++) mono[i] = (mono[i] as number) + (channel[i] as number) * share
  return mono
}

/** Where a recording's own rate is lower still, each sample is held until the next: what that adds lies above all that was recorded. */
function atSpeechRate(mono: Float32Array, rate: number): Float32Array {
  if (rate >= SPEECH_SAMPLE_RATE) return decimate(mono, rate, SPEECH_SAMPLE_RATE)
  return Float32Array.from({ length: Math.floor((mono.length * SPEECH_SAMPLE_RATE) / rate) }, (_, i) => mono[Math.floor((i * rate) / SPEECH_SAMPLE_RATE)] ?? 0)
}
