import { releaseProxy, wrap, type Remote } from 'comlink'
import type { RenderWorker } from '../workers/render.protocol'

/** Lends a render worker, which serves one job and ends with it. Rejects when it breaks down. */
export async function withRenderWorker<T>(work: (worker: Remote<RenderWorker>) => Promise<T>): Promise<T> {
  const worker = new Worker(new URL('../workers/render.worker.ts', import.meta.url), { type: 'module' })
  const remote = wrap<RenderWorker>(worker)
  const crashed = new Promise<never>((_resolve, reject) => {
    worker.onerror = (event) => reject(new Error(event.message || 'the render worker stopped'))
  })
  try {
    return await Promise.race([work(remote), crashed])
  } finally {
    remote[releaseProxy]()
    worker.terminate()
  }
}
