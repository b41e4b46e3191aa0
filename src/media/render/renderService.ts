import type { RenderId } from '@/core/model/ids'
import type { MeasuredBackEnds } from '@/core/output/backEnd'
import { explain, quietly } from '@/diagnostics/note'
import type { RenderReply, RenderWorker } from '../workers/render.protocol'
import { measureBackEnd } from './measureBackEnds'
import { createPartFile, keepWhole, type PartFile } from './partFile'
import type { RenderJob, RenderOutcome, RenderProgress } from './renderJob'
import { renderTogether } from './renderTogether'

/** Progress is told at most this often: a person reads it, and each message costs both threads. */
const PROGRESS_EVERY_MS = 500

/** What the render worker offers: renders into private files, with progress, pause and cancel. */
export class RenderService implements RenderWorker {
  private readonly abort = new AbortController()
  private readonly dropped = new Set<RenderId>()
  private goOn: (() => void) | null = null
  private held = Promise.resolve()

  async render(
    job: RenderJob,
    onProgress: (progress: RenderProgress) => void,
    onEnd: (id: RenderId, reply: RenderReply) => Promise<void>,
  ): Promise<void> {
    const parts = new Map<RenderId, PartFile>()
    const reply = (id: RenderId, what: RenderReply) => onEnd(id, what)
    let told = 0
    const tell = (progress: RenderProgress) => {
      const now = performance.now()
      if (now - told < PROGRESS_EVERY_MS && progress.frame < progress.frames) return
      told = now
      onProgress(progress)
    }
    let outcomes: ReadonlyMap<RenderId, RenderOutcome> = new Map()
    let broken: unknown = null
    try {
      for (const { id } of job.wanted) parts.set(id, await createPartFile(id))
      outcomes = await renderTogether(job, {
        writableOf: (id) => (parts.get(id) as PartFile).writable,
        onProgress: tell,
        mayGoOn: () => this.held,
        isDropped: (id) => this.dropped.has(id),
        signal: this.abort.signal,
      })
    } catch (error) {
      broken = error
    }
    for (const { id } of job.wanted) await reply(id, await this.settle(id, parts.get(id), outcomes.get(id), broken))
  }

  private async settle(
    id: RenderId,
    part: PartFile | undefined,
    outcome: RenderOutcome | undefined,
    broken: unknown,
  ): Promise<RenderReply> {
    try {
      if (outcome?.ok && part && !this.dropped.has(id)) {
        const extras = []
        for (const { kind, blob } of outcome.extras)
          extras.push({ kind, sizeBytes: await keepWhole(`${id}.${kind}`, blob) })
        return { kind: 'finished', file: { ...outcome.file, extras }, sizeBytes: await part.keep() }
      }
      await part?.discard()
      if (this.abort.signal.aborted || this.dropped.has(id)) return { kind: 'cancelled' }
      return { kind: 'failed', failure: outcome && !outcome.ok ? outcome.failure : failureOf(broken) }
    } catch (error) {
      await part?.discard().catch(quietly('a render'))
      return { kind: 'failed', failure: failureOf(error) }
    }
  }

  async measure(): Promise<Omit<MeasuredBackEnds, 'agent'>> {
    return {
      canvasMs: (await measureBackEnd('canvas')) ?? 0,
      planesMs: await measureBackEnd('planes'),
      gpuMs: await measureBackEnd('gpu'),
    }
  }

  drop(id: RenderId): void {
    this.dropped.add(id)
    this.goOn?.()
  }

  cancel(): void {
    this.abort.abort()
    this.goOn?.()
  }

  hold(on: boolean): void {
    this.goOn?.()
    this.goOn = null
    this.held = on ? new Promise((resolve) => (this.goOn = resolve)) : Promise.resolve()
  }
}

function failureOf(error: unknown): Extract<RenderReply, { kind: 'failed' }>['failure'] {
  const full = error instanceof DOMException && error.name === 'QuotaExceededError'
  return full ? { reason: 'no-room', neededBytes: null } : { reason: 'broken', detail: explain('a render', error) }
}
