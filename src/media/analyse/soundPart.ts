import { AudioSampleSink } from 'mediabunny'
import { PART_MICROS, type SoundPart } from '@/core/detect/analysis'
import { SoundSteps } from '@/core/detect/soundSteps'
import { decimate } from '@/core/sound/decimate'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { toPlanar } from '../sound/planar'
import type { SoundSource } from '../source/openSource'

/** What the speech model listens to: telephone quality, at two thirds of the time that twice the rate takes. */
export const SPEECH_SAMPLE_RATE = 8000

/** Heard before a part so that filters have settled when it begins. */
const LEAD_MICROS = MICROS_PER_SECOND

/** What was heard of a part, but for where speech is: `mono` is what tells that, at {@link SPEECH_SAMPLE_RATE}, exactly as long as the part. */
export interface HeardPart {
  measured: Omit<SoundPart, 'speech'>
  mono: Float32Array
}

/** Listens to part `index` of a recording. Throws when it cannot be decoded; stops with an AbortError when `signal` says so. */
export async function hearPart(source: SoundSource, index: number, durationMicros: Micros, signal: AbortSignal): Promise<HeardPart> {
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
  const lead = Math.round((leadMicros * SPEECH_SAMPLE_RATE) / MICROS_PER_SECOND)
  const whole = new Float32Array(Math.round(((endMicros - startMicros) * SPEECH_SAMPLE_RATE) / MICROS_PER_SECOND))
  whole.set((rate > SPEECH_SAMPLE_RATE ? decimate(mono, rate, SPEECH_SAMPLE_RATE) : heldUp(mono, rate)).subarray(lead, lead + whole.length))
  return { measured: steps.result(), mono: whole }
}

function mixInto(mono: Float32Array, channels: readonly Float32Array[], at: number): void {
  const frames = channels[0]?.length ?? 0
  const share = 1 / Math.max(1, channels.length)
  const [from, to] = [Math.max(0, -at), Math.min(frames, mono.length - at)]
  for (const channel of channels) for (let i = from; i < to; i++) mono[at + i] = (mono[at + i] as number) + (channel[i] as number) * share
}

/** Telephone sound and the like: each sample is held until the next. What that adds lies above all that was recorded. */
function heldUp(mono: Float32Array, rate: number): Float32Array {
  return Float32Array.from({ length: Math.floor((mono.length * SPEECH_SAMPLE_RATE) / rate) }, (_, i) => mono[Math.floor((i * rate) / SPEECH_SAMPLE_RATE)] ?? 0)
}
