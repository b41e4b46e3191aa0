import { AudioSampleSink, EncodedPacketSink, type InputAudioTrack } from 'mediabunny'
import { PART_MICROS } from '@/core/detect/analysis'
import { atRate, meanOf } from '@/core/sound/mono'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import type { SoundSource } from '../source/openSource'

/** Decoded before a part, so that filters have settled when it begins. */
const LEAD_MICROS = MICROS_PER_SECOND

/** A part's sound, planar; where the recording has none there is silence. It begins `leadMicros` before the part and ends with it. */
export interface DecodedPart {
  index: number
  durationMicros: Micros
  leadMicros: Micros
  sampleRate: number
  channels: Float32Array<ArrayBuffer>[]
}

/** Decodes part `index` of a recording of length `durationMicros`. Throws when it cannot; stops with an AbortError when `signal` says so. */
export async function decodePart(source: SoundSource, index: number, durationMicros: Micros, signal: AbortSignal): Promise<DecodedPart> {
  const leadMicros = Math.min(index * PART_MICROS, LEAD_MICROS)
  const decoded = await decodeSound(source, index * PART_MICROS - leadMicros, Math.min(durationMicros, (index + 1) * PART_MICROS), signal)
  return { index, durationMicros, leadMicros, ...decoded }
}

/** A stretch of a recording's sound as one channel at a sample rate, for a machine to listen to. Throws and stops like {@link decodePart}. */
export async function decodeMono(source: SoundSource, fromMicros: Micros, toMicros: Micros, rate: number, signal: AbortSignal): Promise<Float32Array> {
  const { channels, sampleRate } = await decodeSound(source, fromMicros, toMicros, signal)
  return atRate(meanOf(channels), sampleRate, rate)
}

/** A stretch of sound, planar, from `fromMicros` to `toMicros` of the recording; where there is none it is silent. */
async function decodeSound(source: SoundSource, fromMicros: Micros, toMicros: Micros, signal: AbortSignal): Promise<Pick<DecodedPart, 'sampleRate' | 'channels'>> {
  if (!source.sound) throw new TypeError('source.sound: there is none')
  const sampleRate = await source.sound.getSampleRate()
  const frames = Math.ceil(((toMicros - fromMicros) * sampleRate) / MICROS_PER_SECOND)
  const channels = Array.from({ length: await source.sound.getNumberOfChannels() }, () => new Float32Array(frames))
  const place = (sound: Copyable, timestampSeconds: number) => {
    const at = Math.round(((source.toRecording(timestampSeconds) - fromMicros) * sampleRate) / MICROS_PER_SECOND)
    const frameOffset = Math.max(0, -at)
    const frameCount = Math.min(sound.numberOfFrames - frameOffset, frames - at - frameOffset)
    if (frameCount <= 0) return
    for (let planeIndex = 0; planeIndex < Math.min(channels.length, sound.numberOfChannels); planeIndex++)
      sound.copyTo((channels[planeIndex] as Float32Array<ArrayBuffer>).subarray(at + frameOffset, at + frameOffset + frameCount), { format: 'f32-planar', planeIndex, frameOffset, frameCount })
  }
  const [from, to] = [source.toContainer(fromMicros), source.toContainer(toMicros)]
  const config = await source.sound.getDecoderConfig()
  if (config && (await AudioDecoder.isConfigSupported(config)).supported) await decodeByBrowser(source.sound, config, from, to, place, signal)
  else await decodeByLibrary(source.sound, from, to, place, signal)
  return { sampleRate, channels }
}

/** What both kinds of decoded sound can do. */
type Copyable = Pick<AudioData, 'numberOfFrames' | 'numberOfChannels' | 'copyTo'>
type Place = (sound: Copyable, timestampSeconds: number) => void

/** Packets given to the browser's decoder and not decoded yet: enough to keep it busy, little to throw away. */
const MOST_QUEUED = 64

/** Straight into the browser's decoder: half the time of the library's way, which is made for playing. */
async function decodeByBrowser(track: InputAudioTrack, config: AudioDecoderConfig, from: number, to: number, place: Place, signal: AbortSignal): Promise<void> {
  let failure: unknown = null
  const decoder = new AudioDecoder({
    output: (data) => {
      place(data, data.timestamp / MICROS_PER_SECOND)
      data.close()
    },
    error: (error) => (failure = error),
  })
  try {
    decoder.configure(config)
    const packets = new EncodedPacketSink(track)
    const first = (await packets.getPacket(from)) ?? (await packets.getFirstPacket())
    for await (const packet of packets.packets(first ?? undefined)) {
      signal.throwIfAborted()
      if (failure !== null) throw failure
      if (packet.timestamp >= to) break
      decoder.decode(packet.toEncodedAudioChunk())
      while (decoder.decodeQueueSize > MOST_QUEUED) await new Promise((resolve) => decoder.addEventListener('dequeue', resolve, { once: true }))
    }
    await decoder.flush()
    if (failure !== null) throw failure
  } finally {
    if (decoder.state !== 'closed') decoder.close()
  }
}

/** What the browser has no decoder of its own for. */
async function decodeByLibrary(track: InputAudioTrack, from: number, to: number, place: Place, signal: AbortSignal): Promise<void> {
  for await (const sample of new AudioSampleSink(track).samples(from, to)) {
    try {
      signal.throwIfAborted()
      place(sample, sample.timestamp)
    } finally {
      sample.close()
    }
  }
}
