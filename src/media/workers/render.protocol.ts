import type { RenderFailure } from '@/core/model/render'
import type { RenderJob, RenderProgress, RenderedFile } from '../render/renderHighlight'

export type RenderReply = { kind: 'finished'; file: RenderedFile; sizeBytes: number } | { kind: 'failed'; failure: RenderFailure } | { kind: 'cancelled' }

export interface RenderWorker {
  /** Renders into the private file `name`. One job at a time; settles once, after which the worker may be reused. */
  render(job: RenderJob, name: string, onProgress: (progress: RenderProgress) => void): Promise<RenderReply>
  /** Ends the running job soon; its `render` call settles as cancelled and nothing is left behind. */
  cancel(): void
}
