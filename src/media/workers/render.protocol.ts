import type { RenderId } from '@/core/model/ids'
import type { FinishedFile, RenderFailure } from '@/core/model/render'
import type { MeasuredBackEnds } from '@/core/output/backEnd'
import type { RenderJob, RenderProgress } from '../render/renderJob'

export type RenderReply =
  | { kind: 'finished'; file: Omit<FinishedFile, 'fileName' | 'sizeBytes' | 'savedAs'>; sizeBytes: number }
  | { kind: 'failed'; failure: RenderFailure }
  | { kind: 'cancelled' }

export interface RenderWorker {
  /** How long each back end takes for a picture here, in ms; null for planes where they cannot be used. */
  measure(): Promise<Omit<MeasuredBackEnds, 'agent'>>
  /**
   * Renders all files of a job into private files named by their ids; `onEnd` is told each one's end. One job in a
   * worker's life.
   */
  render(
    job: RenderJob,
    onProgress: (progress: RenderProgress) => void,
    onEnd: (id: RenderId, reply: RenderReply) => Promise<void>,
  ): Promise<void>
  /** Leaves one file out of the running job; nothing of it is left behind, the others go on. */
  drop(id: RenderId): void
  /** Ends the running job soon: its files end as cancelled and nothing is left behind. */
  cancel(): void
  /** Holds the running job between two frames, or lets it go on. */
  hold(on: boolean): void
}
