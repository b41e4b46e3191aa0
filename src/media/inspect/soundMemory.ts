import { OUTPUT_SAMPLE_RATE, stereoFrom, stretched } from '../sound/stereo'
import type { ReadSound } from '../sound/mixer'
import type { SoundSource } from '../source/openSource'
import { MICROS_PER_SECOND } from '@/core/time/micros'

/** About three minutes of stereo; what was used longest ago goes first. */
const MOST_BYTES = 64 << 20

const PART_SECONDS = 5
const PART_FRAMES = PART_SECONDS * OUTPUT_SAMPLE_RATE

/** Sound that was read to be listened to, kept for a while: after a change of levels or cuts most of it need not be decoded again. */
export class SoundMemory {
  /** Interleaved stereo in the order of its last use. */
  private readonly kept = new Map<string, Float32Array>()
  private bytes = 0

  /** `fresh`: how sound is read that is not kept, at its own speed. */
  constructor(private readonly fresh: typeof stereoFrom = stereoFrom) {}

  /** As `stereoFrom`, from what is kept where there is any. */
  read: ReadSound = (id, source, fromMicros, speedPercent) => (speedPercent === 100 ? this.inParts(id, source, fromMicros) : this.fromTheStart(`${id} ${fromMicros} at ${speedPercent}`, () => stretched(this.inParts(id, source, fromMicros), speedPercent)))

  /** At its own speed, sound is kept in parts that lie at the same places wherever it is cut. */
  private async *inParts(id: string, source: SoundSource, fromMicros: number): AsyncGenerator<Float32Array> {
    const from = Math.round((fromMicros * OUTPUT_SAMPLE_RATE) / MICROS_PER_SECOND)
    if (from < 0) yield new Float32Array(-from * 2)
    let skip = Math.max(0, from) % PART_FRAMES
    for (let n = Math.floor(Math.max(0, from) / PART_FRAMES); ; n++) {
      const part = await this.part(`${id} part ${n}`, () => this.fresh(source, n * PART_SECONDS * MICROS_PER_SECOND, 100))
      if (part.length > skip * 2) yield part.subarray(skip * 2)
      if (part.length < PART_FRAMES * 2) return
      skip = 0
    }
  }

  private async part(key: string, read: () => AsyncGenerator<Float32Array>): Promise<Float32Array> {
    const known = this.recall(key)
    if (known) return known
    const part = new Float32Array(PART_FRAMES * 2)
    let filled = 0
    for await (const block of read()) {
      const taken = block.subarray(0, part.length - filled)
      part.set(taken, filled)
      filled += taken.length
      if (filled === part.length) break
    }
    const whole = part.subarray(0, filled)
    this.keep(key, whole)
    return whole
  }

  /** Stretched sound is another one wherever it begins: kept from its start, piece after piece as they come. */
  private async *fromTheStart(key: string, read: () => AsyncGenerator<Float32Array>): AsyncGenerator<Float32Array> {
    let at = 0
    for (let piece = this.recall(`${key} piece 0`); piece; piece = this.recall(`${key} piece ${at}`)) {
      at++
      yield piece
    }
    let n = 0
    for await (const block of read()) {
      if (n++ < at) continue
      this.keep(`${key} piece ${n - 1}`, block.slice())
      yield block
    }
  }

  private recall(key: string): Float32Array | undefined {
    const known = this.kept.get(key)
    if (!known) return undefined
    this.kept.delete(key)
    this.kept.set(key, known)
    return known
  }

  private keep(key: string, sound: Float32Array): void {
    this.bytes += sound.byteLength - (this.kept.get(key)?.byteLength ?? 0)
    this.kept.set(key, sound)
    for (const [oldest, old] of this.kept) {
      if (this.bytes <= MOST_BYTES) break
      this.kept.delete(oldest)
      this.bytes -= old.byteLength
    }
  }
}
