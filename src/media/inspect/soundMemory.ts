import { OUTPUT_SAMPLE_RATE, stereoFrom, stretched } from '../sound/stereo'
import { BlockReader } from '../sound/blockReader'
import type { ReadSound } from '../sound/mixer'
import type { SoundSource } from '../source/openSource'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'

/**
 * About three minutes of stereo; what was used longest ago goes first, and stretched sound before what it was
 * stretched from, which takes longer to decode.
 */
const MAX_BYTES = 64 << 20

const PART_SECONDS = 5
const PART_FRAMES = PART_SECONDS * OUTPUT_SAMPLE_RATE
const PART_BYTES = PART_FRAMES * 2 * Float32Array.BYTES_PER_ELEMENT

/**
 * Sound that was read to be listened to, kept for a while: after a change of levels or cuts most of it need not be
 * decoded again.
 */
export class SoundMemory {
  /** Interleaved stereo in the order of its last use: as it was read, and at other speeds. */
  private readonly parts = new Map<string, Float32Array>()
  private readonly pieces = new Map<string, Float32Array>()
  private bytes = 0

  /** `fresh`: how sound is read that is not kept, at its own speed. */
  constructor(private readonly fresh: typeof stereoFrom = stereoFrom) {}

  /** As `stereoFrom`, from what is kept where there is any. */
  read: ReadSound = (id, source, fromMicros, speedPercent) =>
    speedPercent === 100
      ? this.inParts(id, source, fromMicros)
      : this.fromTheStart(`${id} ${fromMicros} at ${speedPercent}`, () =>
          stretched(this.inParts(id, source, fromMicros), speedPercent),
        )

  /**
   * Reads sound from one time of a source to another before it is asked for: as far as there is room beside what was
   * read before, or else what was used longest ago is forgotten for it.
   */
  async readAhead(
    id: string,
    source: SoundSource,
    fromMicros: Micros,
    toMicros: Micros,
    signal: AbortSignal,
    mayForget = false,
  ): Promise<void> {
    let at = Math.max(0, fromMicros)
    const parts = this.inParts(id, source, at)
    try {
      while (at < toMicros && !signal.aborted && (mayForget || (this.parts.size + 1) * PART_BYTES <= MAX_BYTES)) {
        const { value, done } = await parts.next()
        if (done) return
        at += (value.length / 2 / OUTPUT_SAMPLE_RATE) * MICROS_PER_SECOND
      }
    } finally {
      await parts.return(undefined)
    }
  }

  /** At its own speed, sound is kept in parts that lie at the same places wherever it is cut. */
  private async *inParts(id: string, source: SoundSource, fromMicros: number): AsyncGenerator<Float32Array> {
    const from = Math.round((fromMicros * OUTPUT_SAMPLE_RATE) / MICROS_PER_SECOND)
    if (from < 0) yield new Float32Array(-from * 2)
    let skip = Math.max(0, from) % PART_FRAMES
    // Parts that follow each other and are not kept are decoded in one go.
    let reading = null as { next: number; reader: BlockReader } | null
    try {
      for (let n = Math.floor(Math.max(0, from) / PART_FRAMES); ; n++) {
        const key = `${id} part ${n}`
        let part = recall(this.parts, key)
        if (!part) {
          if (reading?.next !== n) {
            await reading?.reader.close()
            reading = {
              next: n,
              reader: new BlockReader(this.fresh(source, n * PART_SECONDS * MICROS_PER_SECOND, 100)),
            }
          }
          part = await reading.reader.take(PART_FRAMES)
          reading.next = n + 1
          this.keep(this.parts, key, part)
        }
        if (part.length > skip * 2) yield part.subarray(skip * 2)
        if (part.length < PART_FRAMES * 2) return
        skip = 0
      }
    } finally {
      await reading?.reader.close()
    }
  }

  /** Stretched sound is another one wherever it begins: kept from its start, piece after piece as they come. */
  private async *fromTheStart(key: string, read: () => AsyncGenerator<Float32Array>): AsyncGenerator<Float32Array> {
    let at = 0
    for (let piece = recall(this.pieces, `${key} piece 0`); piece; piece = recall(this.pieces, `${key} piece ${at}`)) {
      at++
      yield piece
    }
    let n = 0
    for await (const block of read()) {
      if (n++ < at) continue
      this.keep(this.pieces, `${key} piece ${n - 1}`, block.slice())
      yield block
    }
  }

  private keep(kept: Map<string, Float32Array>, key: string, sound: Float32Array): void {
    this.bytes += sound.byteLength - (kept.get(key)?.byteLength ?? 0)
    kept.set(key, sound)
    for (const from of [this.pieces, this.parts])
      for (const [oldest, old] of from) {
        if (this.bytes <= MAX_BYTES) return
        from.delete(oldest)
        this.bytes -= old.byteLength
      }
  }
}

/** What is kept, which is used now. */
function recall(kept: Map<string, Float32Array>, key: string): Float32Array | undefined {
  const cached = kept.get(key)
  if (!cached) return undefined
  kept.delete(key)
  kept.set(key, cached)
  return cached
}
