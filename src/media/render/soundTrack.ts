import { AudioSample, AudioSampleSink, type AudioSampleSource } from 'mediabunny'
import { toInterleavedStereo } from '@/core/sound/downmix'
import { splice } from '@/core/sound/splice'
import type { PlacedPassage } from '@/core/time/timeMap'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { toPlanar } from '../inspect/soundLevels'
import type { Source } from '../source/openSource'

export const OUTPUT_SAMPLE_RATE = 48000

/** Silence fed behind a passage so that the resampler's filter gives out its last sound. */
const FLUSH_FRAMES = 4800

const framesAt = (t: Micros) => Math.round((t * OUTPUT_SAMPLE_RATE) / MICROS_PER_SECOND)

/**
 * A highlight's sound as interleaved stereo floats at 48 kHz, block by block and without a gap: each passage starts on its own
 * output frame; where a recording has no sound, or starts it late, there is silence.
 */
export async function* soundBlocks(placed: readonly PlacedPassage[], sourceOf: (passage: PlacedPassage) => Source, signal: AbortSignal): AsyncGenerator<Float32Array> {
  for (const at of placed) {
    const total = framesAt(at.endMicros) - framesAt(at.startMicros)
    let written = 0
    for await (const block of passageBlocks(at, sourceOf(at))) {
      signal.throwIfAborted()
      const take = Math.min(block.length / 2, total - written)
      if (take > 0) yield block.subarray(0, take * 2)
      written += take
    }
    if (written < total) yield new Float32Array((total - written) * 2)
  }
}

async function* passageBlocks({ passage }: PlacedPassage, source: Source): AsyncGenerator<Float32Array> {
  if (!source.sound) return
  const rate = await source.sound.getSampleRate()
  const resample = await resampler((rate * passage.speedPercent) / 100)
  try {
    const range = { fromMicros: passage.inMicros, total: Math.round(((passage.outMicros - passage.inMicros) * rate) / MICROS_PER_SECOND) }
    let written = 0
    const sink = new AudioSampleSink(source.sound)
    for await (const sample of sink.samples(source.toContainer(passage.inMicros), source.toContainer(passage.outMicros))) {
      const channels = toPlanar(sample)
      const startMicros = source.toRecording(sample.timestamp)
      sample.close()
      const { silence, skip, take } = splice(startMicros, channels[0]?.length ?? 0, range, written, rate)
      if (silence > 0) yield* inPieces(silence, resample)
      if (take > 0) yield resample(toInterleavedStereo(channels, skip, take))
      written += silence + take
    }
    if (written < range.total) yield* inPieces(range.total - written, resample)
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

/** Encodes blocks as an audio track, keeping it ahead of the picture by the amount asked for and no more. */
export class SoundWriter {
  private frames = 0
  private done = false

  /** `primingFrames`: what the encoder puts before the first sound; the track starts that much before 0 to make up for it. */
  constructor(private readonly blocks: AsyncGenerator<Float32Array>, private readonly target: AudioSampleSource, private readonly primingFrames: number) {}

  /** Writes until the sound reaches `t` on the output clock, or its end. */
  async writeUpTo(t: Micros): Promise<void> {
    while (!this.done && this.frames < framesAt(t)) {
      const { value, done } = await this.blocks.next()
      if (done) this.done = true
      else await this.write(value)
    }
  }

  async finish(): Promise<void> {
    await this.writeUpTo(Infinity)
  }

  private async write(data: Float32Array): Promise<void> {
    if (data.length === 0) return
    const sample = new AudioSample({ format: 'f32', data: data as Float32Array<ArrayBuffer>, numberOfChannels: 2, sampleRate: OUTPUT_SAMPLE_RATE, timestamp: (this.frames - this.primingFrames) / OUTPUT_SAMPLE_RATE })
    this.frames += data.length / 2
    try {
      await this.target.add(sample)
    } finally {
      sample.close()
    }
  }
}
