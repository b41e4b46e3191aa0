import { proxy, wrap } from 'comlink'
import type { ReadWorker } from '../workers/read.protocol'

/**
 * How long a file may take without a sign of getting on, ms: small ones this long, larger ones longer by their size.
 */
const MAX_MS = 1500
const MAX_MS_A_MEGABYTE = 1000
const LONGEST_MS = 60_000

/** The worker as it is called from here: every answer takes its time. (The library's own type pulls unions apart.) */
type RemoteReader = {
  [K in keyof ReadWorker]: (...given: Parameters<ReadWorker[K]>) => Promise<Awaited<ReturnType<ReadWorker[K]>>>
}

/** *too-slow*: it was given up; *broken*: the reader itself broke down over it. */
export type ForeignRead<T> = { ok: true; value: T } | { ok: false; reason: 'too-slow' | 'broken' }

/**
 * Reads a foreign file in a worker of its own that ends with it, so that nothing in it can hold up the page. `ask`
 * calls one method of the worker; it may call `getsOn` as a sign that it does, which begins its time anew. Never
 * rejects.
 */
export async function readForeign<T>(
  file: Blob,
  ask: (worker: RemoteReader, getsOn: () => void) => Promise<T>,
): Promise<ForeignRead<T>> {
  const thread = new Worker(new URL('../workers/read.worker.ts', import.meta.url), { type: 'module' })
  const worker = wrap(thread) as unknown as RemoteReader
  const maxMs = Math.min(LONGEST_MS, MAX_MS + (MAX_MS_A_MEGABYTE * file.size) / 1e6)
  let timer: ReturnType<typeof setTimeout> | undefined
  try {
    const ended = new Promise<ForeignRead<T>>((resolve) => {
      thread.addEventListener('error', () => resolve({ ok: false, reason: 'broken' }))
      const giveUpLater = () => {
        clearTimeout(timer)
        timer = setTimeout(() => resolve({ ok: false, reason: 'too-slow' }), maxMs)
      }
      void worker
        .ready()
        .then(() => {
          giveUpLater()
          return ask(worker, proxy(giveUpLater))
        })
        .then(
          (value) => resolve({ ok: true, value }),
          () => resolve({ ok: false, reason: 'broken' }),
        )
    })
    return await ended
  } finally {
    clearTimeout(timer)
    thread.terminate()
  }
}
