import { transfer } from 'comlink'
import { passageOf, recordingOf, type Edit } from '@/core/model/edit'
import type { PassageId } from '@/core/model/ids'
import type { SpeechOf } from '@/core/sound/ducking'
import type { Micros } from '@/core/time/micros'
import type { SoundBlock, SoundWorker } from '../workers/sound.protocol'
import { Mixer, SoundSources } from './mixer'
import { framesAt, stereoFrom } from './stereo'

/** Mixes what the Bench plays, in a worker of its own so that drawing never makes it stutter. */
export class SoundService implements SoundWorker {
  private sources = new SoundSources(new Map())
  private edit: Edit | null = null
  private speechOf: SpeechOf = new Map()
  private run: AsyncGenerator<Float32Array> | null = null

  open(files: ReadonlyMap<string, Blob>): void {
    this.stop()
    this.sources.close()
    this.sources = new SoundSources(files)
  }

  setEdit(edit: Edit, speechOf: SpeechOf): void {
    this.edit = edit
    this.speechOf = speechOf
  }

  start(fromMicros: Micros): void {
    this.stop()
    if (this.edit) this.run = new Mixer(this.edit, this.speechOf, this.sources).blocks(fromMicros)
  }

  async next(): Promise<SoundBlock> {
    const { run } = this
    const result = await run?.next()
    return !result || result.done || run !== this.run ? null : handOver(result.value)
  }

  async grain(t: Micros, lengthMicros: Micros): Promise<SoundBlock> {
    if (!this.edit) return null
    return firstPart(new Mixer(this.edit, this.speechOf, this.sources).blocks(t), framesAt(lengthMicros))
  }

  async grainOf(passageId: PassageId, recordingMicros: Micros, lengthMicros: Micros): Promise<SoundBlock> {
    if (!this.edit) return null
    const { id, originMicros } = recordingOf(this.edit, passageOf(this.edit, passageId).recordingId)
    return firstPart(stereoFrom(await this.sources.get(id, originMicros), recordingMicros, 100), framesAt(lengthMicros))
  }

  private stop(): void {
    void this.run?.return(undefined)
    this.run = null
  }
}

/** The first `frames` frames of a stream, or fewer where it ends; null when there are none. */
async function firstPart(blocks: AsyncGenerator<Float32Array>, frames: number): Promise<SoundBlock> {
  const out = new Float32Array(frames * 2)
  let filled = 0
  for await (const block of blocks) {
    const take = Math.min(block.length, out.length - filled)
    out.set(block.subarray(0, take), filled)
    filled += take
    if (filled === out.length) break
  }
  return filled > 0 ? handOver(out.subarray(0, filled)) : null
}

/** Moves a block to the caller without copying it; one that is part of a larger buffer is copied first. */
function handOver(block: Float32Array): SoundBlock {
  const own =
    block.byteLength === block.buffer.byteLength && block.buffer instanceof ArrayBuffer
      ? (block as Float32Array<ArrayBuffer>)
      : new Float32Array(block)
  return transfer(own, [own.buffer])
}
