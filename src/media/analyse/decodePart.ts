import { PART_MICROS } from '@/core/detect/analysis'
import { atRate, meanOf } from '@/core/sound/mono'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { decoded } from '../sound/decoded'
import type { SoundSource } from '../source/openSource'

/** Decoded before a part, so that filters have settled when it begins. */
const LEAD_MICROS = MICROS_PER_SECOND

/**
 * A part's sound, planar; where the recording has none there is silence. It begins `leadMicros` before the part and
 * ends with it.
 */
export interface DecodedPart {
  index: number
  durationMicros: Micros
  leadMicros: Micros
  sampleRate: number
  channels: Float32Array<ArrayBuffer>[]
}

/**
 * Decodes part `index` of a recording of length `durationMicros`. Throws when it cannot; stops with an AbortError
 * when `signal` says so.
 */
export async function decodePart(
  source: SoundSource,
  index: number,
  durationMicros: Micros,
  signal: AbortSignal,
): Promise<DecodedPart> {
  const leadMicros = Math.min(index * PART_MICROS, LEAD_MICROS)
  const decoded = await decodeSound(
    source,
    index * PART_MICROS - leadMicros,
    Math.min(durationMicros, (index + 1) * PART_MICROS),
    signal,
  )
  return { index, durationMicros, leadMicros, ...decoded }
}

/**
 * A stretch of a recording's sound as one channel at a sample rate, for a machine to listen to. Throws and stops like
 * {@link decodePart}.
 */
export async function decodeMono(
  source: SoundSource,
  fromMicros: Micros,
  toMicros: Micros,
  rate: number,
  signal: AbortSignal,
): Promise<Float32Array> {
  const { channels, sampleRate } = await decodeSound(source, fromMicros, toMicros, signal)
  return atRate(meanOf(channels), sampleRate, rate)
}

/** A stretch of sound, planar, from `fromMicros` to `toMicros` of the recording; where there is none it is silent. */
async function decodeSound(
  source: SoundSource,
  fromMicros: Micros,
  toMicros: Micros,
  signal: AbortSignal,
): Promise<Pick<DecodedPart, 'sampleRate' | 'channels'>> {
  if (!source.sound) throw new TypeError('source.sound: there is none')
  const sampleRate = await source.sound.getSampleRate()
  const frames = Math.ceil(((toMicros - fromMicros) * sampleRate) / MICROS_PER_SECOND)
  const channels = Array.from({ length: await source.sound.getNumberOfChannels() }, () => new Float32Array(frames))
  for await (const block of decoded(source.sound, source.toContainer(fromMicros), source.toContainer(toMicros))) {
    try {
      signal.throwIfAborted()
      const at = Math.round(((source.toRecording(block.timestamp) - fromMicros) * sampleRate) / MICROS_PER_SECOND)
      const frameOffset = Math.max(0, -at)
      const frameCount = Math.min(block.numberOfFrames - frameOffset, frames - at - frameOffset)
      if (frameCount <= 0) continue
      for (let planeIndex = 0; planeIndex < Math.min(channels.length, block.numberOfChannels); planeIndex++)
        block.copyTo((channels[planeIndex] as Float32Array).subarray(at + frameOffset, at + frameOffset + frameCount), {
          format: 'f32-planar',
          planeIndex,
          frameOffset,
          frameCount,
        })
    } finally {
      block.close()
    }
  }
  return { sampleRate, channels }
}
