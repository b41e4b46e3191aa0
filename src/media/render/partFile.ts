import { quietly } from '@/diagnostics/note'
import type { StreamTargetChunk } from 'mediabunny'

/**
 * The browser's private folder (origin-private file system) in which finished renders lie, each under its render's
 * id.
 */
const FOLDER = 'renders'

/**
 * Ends the name of a file that is still being written; such a file is never offered and is swept away at the next
 * start.
 */
const PART = '.part'

async function folder(): Promise<FileSystemDirectoryHandle> {
  const root = await navigator.storage.getDirectory()
  return root.getDirectoryHandle(FOLDER, { create: true })
}

/**
 * A file being written in a worker. Ends in exactly one of `keep` (whole, under its name) or `discard` (nothing
 * left).
 */
export interface PartFile {
  writable: WritableStream<StreamTargetChunk>
  keep: () => Promise<number>
  discard: () => Promise<void>
}

/** Starts a file called `name`. Only works in a dedicated worker, which alone has synchronous access. */
export async function createPartFile(name: string): Promise<PartFile> {
  const dir = await folder()
  const handle = await dir.getFileHandle(name + PART, { create: true })
  const access = await handle.createSyncAccessHandle()
  access.truncate(0)
  let end = 0
  const writable = new WritableStream<StreamTargetChunk>({
    write({ data, position }) {
      const written = access.write(data, { at: position })
      // A full disk can be silent: the call then returns fewer bytes than it was given.
      if (written !== data.byteLength) throw new DOMException('The disk is full', 'QuotaExceededError')
      end = Math.max(end, position + data.byteLength)
      // Nobody looks at it again: left to the garbage collector, many of them would lie about before it comes.
      if (data.byteLength === data.buffer.byteLength) data.buffer.transfer(0)
    },
  })
  return {
    writable,
    async keep() {
      access.flush()
      const size = access.getSize()
      access.close()
      if (size !== end) throw new DOMException('The disk is full', 'QuotaExceededError')
      await handle.move(name)
      return size
    },
    async discard() {
      access.close()
      await dir.removeEntry(name + PART).catch(quietly('a part file', 'NotFoundError'))
    },
  }
}

/** Keeps a small file that is there as a whole; its size. */
export async function keepWhole(name: string, blob: Blob): Promise<number> {
  const handle = await (await folder()).getFileHandle(name, { create: true })
  const writable = await handle.createWritable()
  await writable.write(blob)
  await writable.close()
  return blob.size
}

/** A finished file, or null when there is none of that name. */
export async function openRenderFile(name: string): Promise<File | null> {
  try {
    return await (await (await folder()).getFileHandle(name)).getFile()
  } catch {
    return null
  }
}

/** Removes a finished file and what was made beside it. */
export async function deleteRenderFile(name: string): Promise<void> {
  const dir = await folder()
  for (const own of [name, `${name}.poster`, `${name}.loop`])
    await dir.removeEntry(own).catch(quietly('a part file', 'NotFoundError'))
}

/**
 * Removes what renders that were cut short have left, and files of renders that are not `known` any more. Only while
 * none is running.
 */
export async function sweepRenderFiles(known: ReadonlySet<string>): Promise<void> {
  const dir = await folder()
  for await (const name of dir.keys())
    if (name.endsWith(PART) || !known.has(name.replace(/\.(poster|loop)$/, '')))
      await dir.removeEntry(name).catch(quietly('a part file', 'NotFoundError'))
}
