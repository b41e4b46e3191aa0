import { RateChange } from '@/core/sound/rateChange'
import { splice } from '@/core/sound/splice'
import { TimeStretch } from '@/core/sound/timeStretch'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import type { SoundSource } from '../source/openSource'
import { copyStereo, decoded } from './decoded'
import { soundArithmetic } from './soundKernel'

/** Everything is mixed and written at this rate. */
export const OUTPUT_SAMPLE_RATE = 48000

/** The whole rest of a track, as far as `splice` is concerned. */
const NO_END = Number.MAX_SAFE_INTEGER

export const framesAt = (t: Micros) => Math.round((t * OUTPUT_SAMPLE_RATE) / MICROS_PER_SECOND)

/**
 * A source's sound from `fromMicros` (source time; before 0 there is silence) to its end, as interleaved stereo at 48
 * kHz, played at `speedPercent` with its pitch kept. Where the file has a gap, or begins its sound late, there is
 * silence. A block is good until the next is asked for. Stop reading to stop decoding.
 */
export async function* stereoFrom(
  source: SoundSource,
  fromMicros: Micros,
  speedPercent: number,
): AsyncGenerator<Float32Array> {
  if (!source.sound) return
  const sound = atNormalSpeed(source, fromMicros)
  yield* speedPercent === 100 ? sound : stretched(sound, speedPercent)
}

/** Sound at another speed, its pitch kept. */
export async function* stretched(
  sound: AsyncGenerator<Float32Array>,
  speedPercent: number,
): AsyncGenerator<Float32Array> {
  const stretch = new TimeStretch(speedPercent / 100, await soundArithmetic())
  for await (const block of sound) yield stretch.push(block)
  yield stretch.end()
}

async function* atNormalSpeed(source: SoundSource, fromMicros: Micros): AsyncGenerator<Float32Array> {
  if (!source.sound) return
  if (fromMicros < 0) yield new Float32Array(framesAt(-fromMicros) * 2)
  const start = Math.max(0, fromMicros)
  const rate = await source.sound.getSampleRate()
  const change = rate === OUTPUT_SAMPLE_RATE ? null : new RateChange(rate, OUTPUT_SAMPLE_RATE, await soundArithmetic())
  const range = { fromMicros: start, total: NO_END }
  let written = 0
  let room = new Float32Array(0)
  for await (const sample of decoded(source.sound, source.toContainer(start))) {
    const { silence, skip, take } = splice(
      source.toRecording(sample.timestamp),
      sample.numberOfFrames,
      range,
      written,
      rate,
    )
    if (room.length < 2 * take) room = new Float32Array(2 * take)
    const heard = room.subarray(0, 2 * take)
    copyStereo(sample, skip, heard)
    sample.close()
    for (const block of inPieces(silence)) yield change ? change.push(block) : block
    if (take > 0) yield change ? change.push(heard) : heard
    written += silence + take
  }
  if (change) yield change.end()
}

/** Silence of `frames` frames in pieces of at most a second, so that a long one takes no memory. */
function* inPieces(frames: number): Generator<Float32Array> {
  for (let left = frames; left > 0; left -= OUTPUT_SAMPLE_RATE)
    yield new Float32Array(Math.min(left, OUTPUT_SAMPLE_RATE) * 2)
}
