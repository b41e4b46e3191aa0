import { AudioSampleSink } from 'mediabunny'
import { toInterleavedStereo } from '@/core/sound/downmix'
import { splice } from '@/core/sound/splice'
import { TimeStretch } from '@/core/sound/timeStretch'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import type { SoundSource } from '../source/openSource'
import { toPlanar } from './planar'
import { soundArithmetic } from './soundKernel'

/** Everything is mixed and written at this rate. */
export const OUTPUT_SAMPLE_RATE = 48000

/** Silence fed in at the end so that the resampler's filter gives out its last sound. */
const FLUSH_FRAMES = 4800

/** The whole rest of a track, as far as `splice` is concerned. */
const NO_END = Number.MAX_SAFE_INTEGER

export const framesAt = (t: Micros) => Math.round((t * OUTPUT_SAMPLE_RATE) / MICROS_PER_SECOND)

/**
 * A source's sound from `fromMicros` (source time; before 0 there is silence) to its end, as interleaved stereo at 48 kHz, played at
 * `speedPercent` with its pitch kept. Where the file has a gap, or begins its sound late, there is silence. Stop reading to stop decoding.
 */
export async function* stereoFrom(source: SoundSource, fromMicros: Micros, speedPercent: number): AsyncGenerator<Float32Array> {
  if (!source.sound) return
  const sound = atNormalSpeed(source, fromMicros)
  yield* speedPercent === 100 ? sound : stretched(sound, speedPercent)
}

/** Sound at another speed, its pitch kept. */
export async function* stretched(sound: AsyncGenerator<Float32Array>, speedPercent: number): AsyncGenerator<Float32Array> {
  const stretch = new TimeStretch(speedPercent / 100, await soundArithmetic())
  for await (const block of sound) yield stretch.push(block)
  yield stretch.end()
}

async function* atNormalSpeed(source: SoundSource, fromMicros: Micros): AsyncGenerator<Float32Array> {
  if (!source.sound) return
  if (fromMicros < 0) yield new Float32Array(framesAt(-fromMicros) * 2)
  const start = Math.max(0, fromMicros)
  const rate = await source.sound.getSampleRate()
  const resample = await resampler(rate)
  try {
    const range = { fromMicros: start, total: NO_END }
    let written = 0
    for await (const sample of new AudioSampleSink(source.sound).samples(source.toContainer(start))) {
      const channels = toPlanar(sample)
      const startMicros = source.toRecording(sample.timestamp)
      sample.close()
      const { silence, skip, take } = splice(startMicros, channels[0]?.length ?? 0, range, written, rate)
      if (silence > 0) yield* inPieces(silence, resample)
      if (take > 0) yield resample(toInterleavedStereo(channels, skip, take))
      written += silence + take
    }
    yield resample(new Float32Array(FLUSH_FRAMES * 2))
  } finally {
    resample.destroy()
  }
}

/** Silence of `frames` frames in pieces of at most a second, so that a long one takes no memory. */
function* inPieces(frames: number, resample: (block: Float32Array) => Float32Array): Generator<Float32Array> {
  for (let left = frames; left > 0; left -= OUTPUT_SAMPLE_RATE) yield resample(new Float32Array(Math.min(left, OUTPUT_SAMPLE_RATE) * 2))
}

/** Turns stereo blocks of `rate` frames a second into blocks of 48 000, with a band-limited filter that carries over from block to block. */
async function resampler(rate: number) {
  if (rate === OUTPUT_SAMPLE_RATE) return Object.assign((block: Float32Array) => block, { destroy: () => {} })
  const { ConverterType, create } = await import('@alexanderolsen/libsamplerate-js')
  const converter = await create(2, rate, OUTPUT_SAMPLE_RATE, { converterType: ConverterType.SRC_SINC_MEDIUM_QUALITY })
  return Object.assign((block: Float32Array) => converter.full(block).slice(), { destroy: () => converter.destroy() })
}
