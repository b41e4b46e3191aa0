import type { Edit } from '@/core/model/edit'
import type { PassageId } from '@/core/model/ids'
import type { SpeechOf } from '@/core/sound/ducking'
import type { Micros } from '@/core/time/micros'

/** Interleaved stereo at 48 kHz, or null at the end. */
export type SoundBlock = Float32Array<ArrayBuffer> | null

export interface SoundWorker {
  /** `files`: the bytes of recordings and sound files by id. Whatever was open before is closed. */
  open(files: ReadonlyMap<string, Blob>): void
  /** What is played from the next `start` on. */
  setEdit(edit: Edit, speechOf: SpeechOf): void
  /** Begins at output time `fromMicros`; `next` then gives block after block. */
  start(fromMicros: Micros): void
  /** The next block of the run begun last; null when it is over, or when a newer one was begun meanwhile. */
  next(): Promise<SoundBlock>
  /** A short piece around output time `t`, to be heard while scrubbing; null beyond the end. */
  grain(t: Micros, lengthMicros: Micros): Promise<SoundBlock>
  /** The same from a passage's own recording, which may lie beyond its cut points. */
  grainOf(passageId: PassageId, recordingMicros: Micros, lengthMicros: Micros): Promise<SoundBlock>
}
