import { PART_MICROS, type SoundPart } from '@/core/detect/analysis'
import { soundSteps } from '@/core/detect/soundSteps'
import { atRate, meanOf } from '@/core/sound/mono'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import type { DecodedPart } from './decodePart'
import { SPEECH_SAMPLE_RATE } from './speechDetector'

/**
 * What was heard of a part, but for where speech is: `mono` is what tells that, at {@link SPEECH_SAMPLE_RATE},
 * exactly as long as the part.
 */
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
  const length = Math.round(
    (Math.min(PART_MICROS, durationMicros - index * PART_MICROS) * SPEECH_SAMPLE_RATE) / MICROS_PER_SECOND,
  )
  const mono = new Float32Array(length)
  mono.set(atRate(mixed, sampleRate, SPEECH_SAMPLE_RATE).subarray(lead, lead + length))
  return { index, measured, mono }
}
