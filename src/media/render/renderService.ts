import type { RenderReply, RenderWorker } from '../workers/render.protocol'
import { createPartFile } from './partFile'
import { renderHighlight, type RenderJob, type RenderProgress } from './renderHighlight'

/** Progress is told at most this often: a person reads it, and each message costs both threads. */
const PROGRESS_EVERY_MS = 100

/** What the render worker offers: a render into a private file, with progress and cancel. */
export class RenderService implements RenderWorker {
  private abort: AbortController | null = null

  async render(job: RenderJob, name: string, onProgress: (progress: RenderProgress) => void): Promise<RenderReply> {
    const abort = new AbortController()
    this.abort = abort
    const part = await createPartFile(name)
    let told = 0
    const tell = (progress: RenderProgress) => {
      const now = performance.now()
      if (now - told < PROGRESS_EVERY_MS && progress.frame < progress.frames) return
      told = now
      onProgress(progress)
    }
    try {
      const outcome = await renderHighlight(job, part.writable, tell, abort.signal)
      if (!outcome.ok) {
        await part.discard()
        return { kind: 'failed', failure: outcome.failure }
      }
      return { kind: 'finished', file: outcome.file, sizeBytes: await part.keep() }
    } catch (error) {
      await part.discard()
      if (abort.signal.aborted) return { kind: 'cancelled' }
      const full = error instanceof DOMException && error.name === 'QuotaExceededError'
      return { kind: 'failed', failure: full ? { reason: 'no-room', neededBytes: null } : { reason: 'broken', detail: String(error) } }
    } finally {
      this.abort = null
    }
  }

  cancel(): void {
    this.abort?.abort()
  }
}
