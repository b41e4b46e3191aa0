import type { InspectWorker } from '../workers/inspect.protocol'
import { sharedWorker } from '../workers/startWorker'

/**
 * The one worker that looks into files; started when first used. Callbacks given to it must be wrapped in comlink's
 * `proxy`.
 */
export const inspector = sharedWorker<InspectWorker>(
  () => new Worker(new URL('../workers/inspect.worker.ts', import.meta.url), { type: 'module' }),
)
