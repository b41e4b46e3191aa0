import { recordingOf, type Edit } from '@/core/model/edit'
import { concatenated } from '@/core/sound/concatenated'
import { duckGain, speechInOutput, type SpeechOf, type SpeechStretch } from '@/core/sound/ducking'
import { Limiter } from '@/core/sound/limiter'
import { fadeGain, soundPlan, type SoundSegment } from '@/core/sound/soundPlan'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { timeMapOf } from '@/core/time/timeMap'
import { quietly } from '@/diagnostics/note'
import { openSound, type SoundSource } from '../source/openSource'
import { BlockReader } from './blockReader'
import { soundArithmetic } from './soundKernel'
import { OUTPUT_SAMPLE_RATE, framesAt, stereoFrom } from './stereo'

/** Frames mixed at a time: a tenth of a second. */
const BLOCK_FRAMES = 4800

/** Levels are worked out at this many frames and glide between: a third of a millisecond, well under a cut's fade. */
const LEVEL_STEP = 16

/** The sound of an edit's recordings and sound files, each opened when it is first heard. Close it when done. */
export class SoundSources {
  private readonly open = new Map<string, Promise<SoundSource>>()

  /** `files`: the bytes of recordings and sound files by id. `openFile`: how one is opened. */
  constructor(
    private readonly files: ReadonlyMap<string, Blob>,
    private readonly openFile: (file: Blob, originMicros: number, id: string) => Promise<SoundSource> = openSound,
  ) {}

  /** Throws when the file is missing or cannot be read. */
  get(id: string, originMicros: number): Promise<SoundSource> {
    const cached = this.open.get(id)
    if (cached) return cached
    const file = this.files.get(id)
    const opened = file ? this.openFile(file, originMicros, id) : Promise.reject(new Error(`no file for ${id}`))
    this.open.set(id, opened)
    return opened
  }

  close(): void {
    for (const source of this.open.values()) void source.then((s) => s.dispose()).catch(quietly('closing a sound file'))
    this.open.clear()
  }
}

/** Reads a source's sound; see stereoFrom. `id`: of the recording or sound file. */
export type ReadSound = (
  id: string,
  source: SoundSource,
  fromMicros: Micros,
  speedPercent: number,
) => AsyncGenerator<Float32Array>

/** A highlight's sound, mixed: the one way in which preview and render are heard. */
export class Mixer {
  readonly lengthFrames: number
  private readonly plan: SoundSegment[]
  private readonly speech: SpeechStretch[]

  /**
   * `speechOf`: where recordings hold speech, for beds to go down under. `sources` stays the caller's to close.
   * `read`: for whoever keeps what was read.
   */
  constructor(
    private readonly edit: Edit,
    speechOf: SpeechOf,
    private readonly sources: SoundSources,
    private readonly read: ReadSound = (_, ...where) => stereoFrom(...where),
  ) {
    const map = timeMapOf(edit.highlight)
    this.lengthFrames = framesAt(map.lengthMicros)
    this.plan = soundPlan(edit, map)
    this.speech = speechInOutput(map, speechOf)
  }

  /**
   * Interleaved stereo from output time `fromMicros` up to the highlight's end, in blocks, without a gap, its peaks
   * held where the highlight says so. Stop reading to stop decoding.
   */
  async *blocks(fromMicros: Micros): AsyncGenerator<Float32Array> {
    const { limitDb } = this.edit.highlight
    if (limitDb === null) return yield* this.mixed(fromMicros)
    const limiter = new Limiter(OUTPUT_SAMPLE_RATE, limitDb, await soundArithmetic())
    // What is held comes late; whoever reads counts on whole blocks.
    let ready = new Float32Array(0)
    for await (const block of this.mixed(fromMicros)) {
      ready = concatenated([ready, limiter.push(block)])
      if (ready.length < 2 * BLOCK_FRAMES) continue
      yield ready.slice(0, 2 * BLOCK_FRAMES)
      ready = ready.slice(2 * BLOCK_FRAMES)
    }
    ready = concatenated([ready, limiter.end()])
    for (let at = 0; at < ready.length; at += 2 * BLOCK_FRAMES) yield ready.slice(at, at + 2 * BLOCK_FRAMES)
  }

  private async *mixed(fromMicros: Micros): AsyncGenerator<Float32Array> {
    const readers = new Map<SoundSegment, BlockReader>()
    const room = new Float32Array(2 * BLOCK_FRAMES)
    try {
      for (let at = framesAt(fromMicros); at < this.lengthFrames; at += BLOCK_FRAMES) {
        const count = Math.min(BLOCK_FRAMES, this.lengthFrames - at)
        const block = new Float32Array(count * 2)
        for (const segment of this.plan) {
          const from = Math.max(at, framesAt(segment.startMicros))
          const to = Math.min(at + count, framesAt(segment.endMicros))
          if (to <= from) continue
          const reader = readers.get(segment) ?? (await this.readerFor(segment, from))
          readers.set(segment, reader)
          const samples = room.subarray(0, 2 * (to - from))
          await reader.read(samples)
          this.add(block, at, segment, from, samples)
          if (to === framesAt(segment.endMicros)) {
            await reader.close()
            readers.delete(segment)
          }
        }
        yield block
      }
    } finally {
      for (const reader of readers.values()) await reader.close()
    }
  }

  private async readerFor(segment: SoundSegment, fromFrame: number): Promise<BlockReader> {
    const source = await this.sources.get(segment.source.id, originOf(this.edit, segment.source))
    const ahead = fromFrame - framesAt(segment.startMicros)
    const fromMicros =
      segment.fromMicros + Math.round((((ahead * MICROS_PER_SECOND) / OUTPUT_SAMPLE_RATE) * segment.speedPercent) / 100)
    return new BlockReader(this.read(segment.source.id, source, fromMicros, segment.speedPercent))
  }

  private add(
    block: Float32Array,
    blockFrom: number,
    segment: SoundSegment,
    from: number,
    samples: Float32Array,
  ): void {
    const frames = samples.length / 2
    const offset = (from - blockFrom) * 2
    if (isSteady(segment, from, from + frames)) return addScaled(block, offset, samples, segment.gain)
    let level = this.levelAt(segment, from)
    for (let step = 0; step < frames; step += LEVEL_STEP) {
      const end = Math.min(frames, step + LEVEL_STEP)
      const then = this.levelAt(segment, from + end)
      const slope = (then - level) / (end - step)
      for (let i = 2 * step; i < 2 * end; i += 2) {
        block[offset + i] = (block[offset + i] as number) + level * (samples[i] as number)
        block[offset + i + 1] = (block[offset + i + 1] as number) + level * (samples[i + 1] as number)
        level += slope
      }
      level = then
    }
  }

  private levelAt(segment: SoundSegment, frame: number): number {
    const t = microsAt(frame)
    let level = segment.gain
    for (const fade of segment.fades) level *= fadeGain(fade, t)
    return level * duckGain(this.speech, segment.duckDb, t)
  }
}

const microsAt = (frame: number) => (frame * MICROS_PER_SECOND) / OUTPUT_SAMPLE_RATE

/** Whether nothing but its gain says how loud a segment is between two frames of output. */
function isSteady({ fades, duckDb }: SoundSegment, from: number, to: number): boolean {
  return (
    duckDb === 0 &&
    fades.every(({ kind, fromMicros, toMicros }) =>
      kind === 'in' ? microsAt(from) >= toMicros : microsAt(to) <= fromMicros,
    )
  )
}

function addScaled(block: Float32Array, offset: number, samples: Float32Array, gain: number): void {
  for (let i = 0; i < samples.length; i++)
    block[offset + i] = (block[offset + i] as number) + gain * (samples[i] as number)
}

/** Where the time of a segment's file begins. */
export function originOf(edit: Edit, { kind, id }: SoundSegment['source']): number {
  if (kind === 'recording') return recordingOf(edit, id).originMicros
  return edit.soundFiles.find((f) => f.id === id)?.originMicros ?? 0
}
