// What submitters, nodes and the server's own Outbox agree on: the queue, and what a job holds.
import { Queue } from 'bullmq'
import { Redis } from 'ioredis'

export const QUEUE = 'brimble-renders'

/**
 * How often a job is begun before it has failed, if not otherwise asked; and the first pause, each further one is
 * twice as long.
 */
export const USUAL_ATTEMPTS = 5
const FIRST_PAUSE_MS = 5000

/** How long what has ended is known: so long the same file is not made twice. */
const KNOWN_SECONDS = { finished: 7 * 86_400, failed: 30 * 86_400 }

/** A connection that waits for a Redis that is away; it comes back by itself. */
export function connect(url) {
  const connection = new Redis(url, {
    maxRetriesPerRequest: null,
    retryStrategy: (tries) => Math.min(200 * tries, 5000),
  })
  // Told by whoever waits; without a listener it would end the process.
  connection.on('error', () => {})
  return connection
}

/** What Redis or TLS says when an address is wrong, which trying again will not mend. */
const REFUSED = /^(WRONGPASS|NOAUTH|NOPERM|ERR invalid password|ERR AUTH)|certificate|self.signed|wrong version number/i

/**
 * Resolves once Redis answers, however long it is away. Rejects, with what it said, when it refuses this password or
 * certificate.
 */
export function whenReady(connection) {
  return new Promise((resolve, reject) => {
    connection.once('ready', resolve)
    connection.on('error', (error) => {
      if (!REFUSED.test(error.message)) return
      connection.disconnect()
      reject(error)
    })
    if (connection.status === 'ready') resolve()
  })
}

export function openQueue(connection) {
  return new Queue(QUEUE, { connection })
}

/**
 * Asks for a file. `job`: `{ id, highlight, name, frames, file: { shape, settings }, at }` and either `text`, an edit
 * alone, or `bundle`, `{ fileName, sizeBytes }` of one in the nodes' media folder; `at`: which edit of it. `urgency`:
 * 1 to 10, the highest first. Says what became of it: *queued*, *again* (it had failed), *waiting*, *made* (already).
 * Asking twice makes one file.
 */
export async function submit(queue, job, { urgency = 5, attempts = USUAL_ATTEMPTS } = {}) {
  const known = await queue.getJob(job.id)
  const state = known ? await known.getState() : null
  if (state === 'completed') return 'made'
  if (state === 'failed') {
    await known.retry('failed')
    return 'again'
  }
  if (state !== null) return 'waiting'
  await queue.add('render', job, {
    jobId: job.id,
    priority: 11 - urgency,
    attempts,
    backoff: { type: 'exponential', delay: FIRST_PAUSE_MS },
    removeOnComplete: { age: KNOWN_SECONDS.finished },
    removeOnFail: { age: KNOWN_SECONDS.failed },
  })
  return 'queued'
}

/** How jobs stand: `{ id, state, progress, failedReason, attempts, made }` each; *unknown* where there is none. */
export async function standing(queue, ids) {
  return Promise.all(
    ids.map(async (id) => {
      const job = await queue.getJob(id)
      if (!job) return { id, state: 'unknown', progress: null, failedReason: null, attempts: 0, made: null }
      const state = await job.getState()
      return {
        id,
        state,
        progress: typeof job.progress === 'object' ? job.progress : null,
        failedReason: job.failedReason ?? null,
        attempts: job.attemptsMade,
        made: state === 'completed' ? job.returnvalue : null,
      }
    }),
  )
}
