import type { Remote } from 'comlink'
import type { RenderWorker } from '../workers/render.protocol'
import { startWorker } from '../workers/startWorker'

/** Lends a render worker, which serves one job and ends with it. Rejects when it breaks down. */
export async function withRenderWorker<T>(work: (worker: Remote<RenderWorker>) => Promise<T>): Promise<T> {
  const { remote, end } = startWorker<RenderWorker>(
    () => new Worker(new URL('../workers/render.worker.ts', import.meta.url), { type: 'module' }),
  )
  try {
    return await work(remote)
  } finally {
    end()
  }
}
