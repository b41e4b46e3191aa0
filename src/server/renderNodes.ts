import { createHash, randomUUID } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { readdir, rename, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream as NodeStream } from 'node:stream/web'
import { connect, openQueue, standing, submit } from '../../unattended/queue.mjs'

/** Where the queue of the render nodes is; without it this server knows of none. */
const redisAddress = () => process.env.BRIMBLE_REDIS
/** The nodes' media folder, as this server sees it: pictures, sounds and fonts that an edit needs are left there. */
const mediaFolder = () => process.env.BRIMBLE_MEDIA

/** Redis is asked so long; then it is away, and the person told. */
const PATIENCE_MS = 4000

export const hasRenderNodes = () => redisAddress() !== undefined

const kept = globalThis as unknown as {
  brimbleNodes?: { connection: ReturnType<typeof connect>; queue: ReturnType<typeof openQueue> }
}

/**
 * Asks the queue, if it is there. Nothing is left to be done once it comes back: the person has been told that it is
 * away.
 */
async function ask<T>(work: (queue: ReturnType<typeof openQueue>) => Promise<T>): Promise<T> {
  const address = redisAddress()
  if (address === undefined) throw new RedisAway()
  if (!kept.brimbleNodes) {
    const connection = connect(address)
    kept.brimbleNodes = { connection, queue: openQueue(connection) }
  }
  const { connection, queue } = kept.brimbleNodes
  if (connection.status !== 'ready')
    await soon(new Promise<void>((resolve) => connection.once('ready', () => resolve())))
  return soon(work(queue))
}

/** Waits no longer than a person would. */
async function soon<T>(asked: Promise<T>): Promise<T> {
  let timer: NodeJS.Timeout | undefined
  const late = new Promise<never>((_resolve, reject) => {
    timer = setTimeout(() => reject(new RedisAway()), PATIENCE_MS)
  })
  try {
    return await Promise.race([asked, late])
  } finally {
    clearTimeout(timer)
  }
}

/** The queue of the render nodes does not answer. */
export class RedisAway extends Error {}

export type NodeJob = Parameters<typeof submit>[1]

export const handToNodes = (job: NodeJob) => ask((queue) => submit(queue, job))
export const standingOf = (ids: readonly string[]) => ask((queue) => standing(queue, ids))

/** Takes a job back; false when a node is at work on it. */
export const takeBack = (id: string): Promise<boolean> =>
  ask(async (queue) => {
    const job = await queue.getJob(id)
    return (
      !job ||
      job.remove().then(
        () => true,
        () => false,
      )
    )
  })

const MAX_BUNDLE_BYTES = 2e9
/** All bundles in the nodes' folder together: who wants room removes old ones. */
const MAX_BUNDLES_BYTES = 50e9
/** A part that nothing was written to for so long is of a server that is gone. */
const PART_IS_LEFT_AFTER_MS = 3_600_000

const PART = /^\.[0-9a-f-]{36}\.part$/
const BUNDLE = /^[0-9a-f]{32}\.brimble\.zip$/

/** Bytes that bundles and parts of them take in a folder. */
async function bundlesBytes(folder: string): Promise<number> {
  const sizes = (await readdir(folder))
    .filter((name) => PART.test(name) || BUNDLE.test(name))
    .map((name) => sizeOf(join(folder, name)))
  return (await Promise.all(sizes)).reduce((sum, bytes) => sum + bytes, 0)
}

const sizeOf = (path: string) =>
  stat(path).then(
    (s) => s.size,
    () => 0,
  )

/** Removes parts of bundles that a server before this one was killed over. */
export async function sweepBundleParts(): Promise<void> {
  const folder = mediaFolder()
  if (folder === undefined) return
  const parts = (await readdir(folder).catch(() => []))
    .filter((name) => PART.test(name))
    .map((name) => join(folder, name))
  for (const part of parts) {
    const writtenAt = await stat(part).then(
      (s) => s.mtimeMs,
      () => Infinity,
    )
    if (Date.now() - writtenAt > PART_IS_LEFT_AFTER_MS) await rm(part, { force: true })
  }
}

/**
 * Leaves a bundle where nodes find it, under a name of what it holds; null when this server has no such folder.
 * Rejects when it is too large, there are too many, or the disk is full; nothing is left then.
 */
export async function leaveBundle(
  body: ReadableStream<Uint8Array>,
): Promise<{ fileName: string; sizeBytes: number } | null> {
  const folder = mediaFolder()
  if (folder === undefined) return null
  const part = join(folder, `.${randomUUID()}.part`)
  const maxBytes = Math.min(MAX_BUNDLE_BYTES, MAX_BUNDLES_BYTES - (await bundlesBytes(folder)))
  const hash = createHash('sha256')
  let bytes = 0
  const counted = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length
      hash.update(chunk)
      done(bytes > maxBytes ? new Error('too large') : null, chunk)
    },
  })
  try {
    await pipeline(Readable.fromWeb(body as NodeStream), counted, createWriteStream(part, { flags: 'wx' }))
    const fileName = `${hash.digest('hex').slice(0, 32)}.brimble.zip`
    await rename(part, join(folder, fileName))
    return { fileName, sizeBytes: (await stat(join(folder, fileName))).size }
  } catch (error) {
    await rm(part, { force: true })
    throw error
  }
}
