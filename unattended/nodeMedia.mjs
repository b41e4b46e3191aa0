// Where a node has recordings from: a folder that it reads, or an address that it copies from before it renders.
import { createWriteStream, existsSync, mkdirSync, readdirSync, rmSync, statSync } from 'node:fs'
import { rename } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { findNeeds, indexMedia } from './media.mjs'
import { makeTemporaryFolder, removeTemporaryFolder } from './temporaryFolders.mjs'

/** So much is kept of what was copied; what was used longest ago goes first. */
const MAX_CACHED_BYTES = 50e9

/** `find(needs)` resolves as findNeeds of media.mjs does; `close()` removes what was copied. */
export function openMedia(where) {
  return /^https?:\/\//i.test(where) ? httpMedia(where) : folderMedia(where)
}

function folderMedia(dir) {
  let index = indexMedia(dir)
  return {
    find: async (needs) => {
      const found = findNeeds(index, needs)
      if (found.ok) return found
      // Recordings arrive while a node is at work.
      index = indexMedia(dir)
      return findNeeds(index, needs)
    },
    close: () => {},
  }
}

function httpMedia(address) {
  const base = address.endsWith('/') ? address : `${address}/`
  const cache = makeTemporaryFolder('brimble-media')
  const one = async ({ id, fileName, sizeBytes }) => {
    const path = join(cache, `${sizeBytes}-${Buffer.from(basename(fileName)).toString('base64url').slice(0, 200)}`)
    if (existsSync(path)) return { id, path }
    makeRoom(cache, sizeBytes)
    const reply = await fetch(new URL(encodeURIComponent(basename(fileName)), base))
    if (!reply.ok || !reply.body) return null
    const part = `${path}.part`
    try {
      await pipeline(Readable.fromWeb(reply.body), createWriteStream(part))
    } catch (error) {
      rmSync(part, { force: true })
      throw error
    }
    if (statSync(part).size !== sizeBytes) return (rmSync(part), null)
    await rename(part, path)
    return { id, path }
  }
  return {
    find: async (needs) => {
      mkdirSync(cache, { recursive: true })
      const found = []
      for (const need of needs) {
        const got = await one(need)
        if (!got) return { ok: false, missing: need.fileName, differs: false }
        found.push(got)
      }
      return { ok: true, found }
    },
    close: () => removeTemporaryFolder(cache),
  }
}

function makeRoom(cache, bytes) {
  const files = readdirSync(cache).map((name) => ({ path: join(cache, name), ...size(join(cache, name)) }))
  let total = files.reduce((sum, f) => sum + f.bytes, bytes)
  for (const { path, bytes: own } of files.sort((a, b) => a.used - b.used)) {
    if (total <= MAX_CACHED_BYTES) return
    rmSync(path, { force: true })
    total -= own
  }
}

function size(path) {
  const { size: bytes, atimeMs: used } = statSync(path)
  return { bytes, used }
}
