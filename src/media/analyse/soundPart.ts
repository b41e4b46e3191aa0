import { AudioSampleSink } from 'mediabunny'
import { PART_MICROS, stepsInPart, SPEECH_STEP_MICROS, type SoundPart } from '@/core/detect/analysis'
import { SoundSteps } from '@/core/detect/soundSteps'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { toPlanar } from '../sound/planar'
import type { SoundSource } from '../source/openSource'
import { SPEECH_SAMPLE_RATE, type SpeechDetector } from './speechDetector'

/** Heard before a part so that filters and model have settled when it begins. */
const LEAD_MICROS = MICROS_PER_SECOND

/** Listens to part `index` of a recording. Throws when it cannot be decoded; stops with an AbortError when `signal` says so. */
export async function soundPart(source: SoundSource, detector: SpeechDetector, index: number, durationMicros: Micros, signal: AbortSignal): Promise<SoundPart> {
  if (!source.sound) throw new TypeError('source.sound: there is none')
  const startMicros = index * PART_MICROS
  const endMicros = Math.min(durationMicros, startMicros + PART_MICROS)
  const leadMicros = Math.min(startMicros, LEAD_MICROS)
  const rate = await source.sound.getSampleRate()
  const steps = new SoundSteps(rate, index, durationMicros)
  const mono = new Float32Array(Math.ceil(((endMicros - startMicros + leadMicros) * rate) / MICROS_PER_SECOND))
  for await (const sample of new AudioSampleSink(source.sound).samples(source.toContainer(startMicros - leadMicros), source.toContainer(endMicros))) {
    const channels = toPlanar(sample)
    const at = source.toRecording(sample.timestamp) - startMicros
    sample.close()
    signal.throwIfAborted()
    steps.add(channels, at)
    mixInto(mono, channels, Math.round(((at + leadMicros) * rate) / MICROS_PER_SECOND))
  }
  const heard = await toSpeechRate(mono, rate)
  const lead = Math.round((leadMicros * SPEECH_SAMPLE_RATE) / MICROS_PER_SECOND)
  const probabilities = await detector.probabilities(heard, lead)
  const speech = new Uint8Array(stepsInPart(index, durationMicros, SPEECH_STEP_MICROS))
  probabilities.subarray(0, speech.length).forEach((p, i) => (speech[i] = Math.round(p * 255)))
  return { ...steps.result(), speech }
}

function mixInto(mono: Float32Array, channels: readonly Float32Array[], at: number): void {
  const frames = channels[0]?.length ?? 0
  const [from, to] = [Math.max(0, -at), Math.min(frames, mono.length - at)]
  for (const channel of channels) for (let i = from; i < to; i++) mono[at + i] = (mono[at + i] ?? 0) + (channel[i] ?? 0) / channels.length
}

async function toSpeechRate(mono: Float32Array, rate: number): Promise<Float32Array> {
  if (rate === SPEECH_SAMPLE_RATE) return mono
  const { ConverterType, create } = await import('@alexanderolsen/libsamplerate-js')
  const converter = await create(1, rate, SPEECH_SAMPLE_RATE, { converterType: ConverterType.SRC_SINC_FASTEST })
  try {
    return converter.simple(mono).slice()
  } finally {
    converter.destroy()
  }
}
