// `npm run render:node -- --redis <url> --media <dir | http address> --out <dir>`: a render node. See
// docs/render-nodes.md.
import { rmSync } from 'node:fs'
import { hostname } from 'node:os'
import { extname } from 'node:path'
import { ensureBuild, ensureModules } from '../scripts/prepare.mjs'
import { EXIT, fromHere, readCall, runCommand, say, Unusable, wholeNumber } from './command.mjs'
import { openEngine } from './engine.mjs'
import { openMedia } from './nodeMedia.mjs'
import { placeAs } from './place.mjs'

// The queue's packages may have to be installed first.
await ensureModules()
const { DelayedError, UnrecoverableError, Worker } = await import('bullmq')
const { connect, QUEUE, whenReady } = await import('./queue.mjs')
const { readJob } = await import('./job.mjs')

const HELP = `npm run render:node -- --redis <url> --media <dir | http address> --out <dir> [options]

  --redis <url>         for example redis://localhost:6379; with a password redis://:secret@host, with TLS rediss://host
  --media <where>       a folder that holds recordings, or an address that they are copied from
  --out <dir>           where finished files go
  --name <name>         what this node is called in jobs' logs (default: this machine and process)
  --stalled-after <s>   a node that was not heard of for so long has lost its job to another (default 30)
  --chromium <path>     the browser that renders

Ctrl-C lets the job under way be finished; once more gives it back to the queue. Ends with 0, or with 2 when the call makes no sense.
`

/** A job that has been lost so often by nodes that went away is what makes them go. */
const MAX_LOSSES = 3
/** Progress goes to Redis at most this often. */
const PROGRESS_EVERY_MS = 1000

/** Reasons that will be the same the next time. */
const FOR_GOOD = new Set([
  'bad-job',
  'encoder-refuses-size',
  'source-unreadable',
  'bad-edit',
  'not-a-bundle',
  'not-json',
  'newer-version',
  'unknown-shape',
])
/** So will these of the file system: the folder for finished files is not there, or is not this node's to write in. */
const FOR_GOOD_CODES = new Set(['ENOENT', 'ENOTDIR', 'EISDIR', 'EACCES', 'EPERM', 'EROFS', 'ENAMETOOLONG'])

function readNode() {
  const { values } = readCall(
    HELP,
    {
      redis: { type: 'string' },
      media: { type: 'string' },
      out: { type: 'string' },
      name: { type: 'string' },
      'stalled-after': { type: 'string', default: '30' },
    },
    ['redis', 'media', 'out'],
  )
  return {
    redis: values.redis,
    media: /^https?:/i.test(values.media) ? values.media : fromHere(values.media),
    out: fromHere(values.out),
    name: values.name ?? `${hostname()}-${process.pid}`,
    stalledMs: 1000 * wholeNumber('stalled-after', values['stalled-after'], 2, 600),
    chromium: values.chromium,
  }
}

/** Thrown by a job that is given back. */
class GivenBack extends Error {}

class RenderNode {
  engine = null
  session = null
  isLeaving = false

  constructor(call) {
    this.call = call
    this.media = openMedia(call.media)
  }

  /** One browser for many jobs; another when it has gone. */
  async openSession() {
    try {
      this.engine ??= await openEngine(this.call)
      return await this.engine.session()
    } catch (error) {
      await this.closeEngine()
      if (error instanceof Unusable) throw error
      this.engine = await openEngine(this.call)
      return this.engine.session()
    }
  }

  async closeEngine() {
    const engine = this.engine
    this.engine = null
    await engine?.close()
  }

  async make(job, token) {
    const asked = readJob(job.data)
    if (!asked) {
      await job.log(`${this.call.name}: this is no job`).catch(() => {})
      say('failed', { job: job.id, reason: 'bad-job' })
      throw failed({ reason: 'bad-job' })
    }
    const { id, name } = asked
    say('started', { job: id, name, attempt: job.attemptsMade + 1 })
    await job.log(`${this.call.name}: begun`)
    const session = (this.session = await this.openSession())
    try {
      const made = await this.render(session, job, asked, token)
      await job.log(`${this.call.name}: made ${made.names.join(', ')} in ${(made.tookMs / 1000).toFixed(1)} s`)
      say('finished', { job: id, ...made })
      return made
    } catch (error) {
      if (this.isLeaving && error instanceof GivenBack) {
        await job.log(`${this.call.name}: given back`)
        await job.moveToDelayed(Date.now(), token)
        throw new DelayedError()
      }
      await job.log(`${this.call.name}: ${error.message}`).catch(() => {})
      say('failed', { job: id, reason: error.message })
      throw FOR_GOOD_CODES.has(error.code) ? new UnrecoverableError(error.message) : error
    } finally {
      this.session = null
      await session.close().catch(() => this.closeEngine())
    }
  }

  /** `asked`: the job's data, checked; `job`: where its progress and its lock are kept. */
  async render(session, job, asked, token) {
    const { id, name, file, at } = asked
    const { highlights, refused } = await session.plan(await this.sourceOf(asked), { files: [file] })
    const planned = highlights[at]
    if (!planned) throw failed(refused[0] ?? { reason: 'not-a-bundle' })
    const sources = await this.media.find(planned.needs)
    if (!sources.ok) throw failed({ reason: 'source-missing', fileName: sources.missing })
    let ended = null
    let told = 0
    await session.render(planned.at, [planned.files[0].id], sources.found, async ({ kind, ...what }) => {
      if (kind !== 'progress') ended = { kind, ...what }
      else if (Date.now() - told >= PROGRESS_EVERY_MS) {
        told = Date.now()
        await job.updateProgress({ ...what, node: this.call.name }).catch(() => {})
      }
    })
    if (ended?.kind === 'cancelled') throw new GivenBack('given back')
    if (ended?.kind !== 'finished') throw failed(ended?.failure ?? { reason: 'broken' })
    const parts = []
    for (const part of ended.files)
      parts.push({ from: await session.fetch(ended.id, part).catch(noRoom), name: part.name })
    await session.forget(ended.id)
    // Whoever lost the job while it was away must not give files their names: another node does.
    if ((await job.extendLock(token, this.call.stalledMs)) !== 1) {
      for (const { from } of parts) rmSync(from, { force: true })
      throw new Error('lost to another node')
    }
    // The name is the job's own: made twice, it is one file.
    const stem = `${await session.fileSafe(name)} ${id.slice(0, 8)}`
    const names = parts.map((part) => `${stem}${extname(part.name)}`)
    // What is there already was made by a node that went away before it could say so.
    parts.forEach(({ from }, n) => placeAs(from, this.call.out, names[n]) || rmSync(from))
    return { names, frames: ended.frames, sizeBytes: ended.sizeBytes, tookMs: ended.tookMs, node: this.call.name }
  }

  async sourceOf({ text, bundle }) {
    if (!bundle) return { name: 'job.brimble.json', mimeType: 'application/json', buffer: Buffer.from(text) }
    const found = await this.media.find([{ id: 'bundle', ...bundle }])
    if (!found.ok) throw failed({ reason: 'source-missing', fileName: bundle.fileName })
    return found.found[0].path
  }

  /** Lets go of the job under way. */
  giveBack() {
    this.isLeaving = true
    void this.session?.cancel().catch(() => {})
  }

  async close() {
    this.media.close()
    await this.closeEngine()
  }
}

/** Why there is no file, as jobs keep it: the reason's name, then what it is about. */
function failed({ reason, fileName, detail }) {
  const words = [reason, fileName, detail].filter(Boolean).join(': ')
  return FOR_GOOD.has(reason) ? new UnrecoverableError(words) : new Error(words)
}

function redisRefuses(error) {
  throw new Unusable(`Redis refuses: ${error.message}`)
}

function noRoom(error) {
  throw error.code === 'ENOSPC' ? failed({ reason: 'no-room' }) : error
}

async function main() {
  const call = readNode()
  await ensureBuild()
  const connection = connect(call.redis)
  await whenReady(connection).catch(redisRefuses)
  const node = new RenderNode(call)
  // A node that cannot render says so now, and takes nothing from others that can.
  await (await node.openSession()).close()
  const worker = new Worker(QUEUE, (job, token) => node.make(job, token), {
    connection,
    concurrency: 1,
    lockDuration: call.stalledMs,
    stalledInterval: call.stalledMs / 2,
    maxStalledCount: MAX_LOSSES,
  })
  worker.on('error', (error) => say('redis', { detail: error.message }))
  // What is known of a finished job is what it made; the edit has gone into it.
  worker.on('completed', (job) => {
    const { id, name, highlight, frames } = job.data
    void job.updateData({ id, name, highlight, frames }).catch(() => {})
  })
  worker.on('stalled', (job) => say('taken-over', { job }))
  say('ready', { node: call.name })
  let leaving = null
  const leave = (signal) => {
    if (leaving) return node.giveBack()
    if (signal === 'SIGTERM') node.giveBack()
    say('leaving')
    leaving = worker
      .close()
      .then(() => node.close())
      .then(() => connection.quit().catch(() => {}))
      .then(() => process.exit(EXIT.made))
  }
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => leave(signal))
}

await runCommand(main)
