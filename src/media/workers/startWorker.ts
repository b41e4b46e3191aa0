import { releaseProxy, wrap, type Remote } from 'comlink'

/** What is said to whoever waits for a worker that broke down, or whose code could not be loaded. */
export class WorkerBroken extends Error {
  override name = 'WorkerBroken'
}

export interface StartedWorker<T> {
  /** Calls reject with {@link WorkerBroken} once it has broken down; those that wait then, at that moment. */
  remote: Remote<T>
  isBroken: () => boolean
  end: () => void
}

/** The one way in which workers are started. `make` makes it: bundlers want to see its address where it is made. */
export function startWorker<T>(make: () => Worker): StartedWorker<T> {
  const worker = make()
  const plain = wrap<T>(worker)
  // Not raced against one promise: that would keep every answer for as long as the worker lives.
  const waiting = new Set<(error: WorkerBroken) => void>()
  let broken: WorkerBroken | null = null
  let ended = false
  const breakDown = (detail: string) => {
    // Ended while its code was still being fetched: nobody waits for it any more.
    if (ended) return
    broken ??= new WorkerBroken(`a part of Brimble that works in the background stopped: ${detail}`)
    worker.terminate()
    for (const reject of waiting) reject(broken)
    waiting.clear()
  }
  worker.addEventListener('error', (event) => breakDown(event.message || 'it could not be loaded'))
  worker.addEventListener('messageerror', () => breakDown('it could not be understood'))
  const ask = (method: (...given: unknown[]) => Promise<unknown>, given: unknown[]) =>
    new Promise((resolve, reject) => {
      if (broken) return reject(broken)
      waiting.add(reject)
      method(...given)
        .then(resolve, reject)
        .finally(() => waiting.delete(reject))
    })
  const remote = new Proxy(plain, {
    get: (target, name) => {
      // It is no promise, though its own proxy would answer to anything.
      if (name === 'then') return undefined
      const member: unknown = Reflect.get(target, name)
      return typeof name === 'string'
        ? (...given: unknown[]) => ask(member as Parameters<typeof ask>[0], given)
        : member
    },
  })
  const end = () => {
    ended = true
    plain[releaseProxy]()
    worker.terminate()
  }
  return { remote, isBroken: () => broken !== null, end }
}

/** A worker that all of a page share: started when first asked for, and anew after it broke down. */
export function sharedWorker<T>(make: () => Worker): () => Remote<T> {
  let started: StartedWorker<T> | null = null
  return () => {
    if (!started || started.isBroken()) started = startWorker<T>(make)
    return started.remote
  }
}
