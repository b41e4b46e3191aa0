import { wrap, type Remote } from 'comlink'
import type { InspectWorker } from '../workers/inspect.protocol'

let shared: Remote<InspectWorker> | null = null

/** The one worker that looks into files; started when first used. Callbacks given to it must be wrapped in comlink's `proxy`. */
export function inspector(): Remote<InspectWorker> {
  shared ??= wrap<InspectWorker>(
    new Worker(new URL('../workers/inspect.worker.ts', import.meta.url), { type: 'module' }),
  )
  return shared
}
