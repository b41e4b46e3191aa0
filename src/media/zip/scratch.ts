import { quietly } from '@/diagnostics/note'
import type { StreamTargetChunk } from 'mediabunny'

/**
 * A folder of the browser's private disk for what is being put together; one file for each purpose, the last one made
 * for it.
 */
const FOLDER = 'scratch'

interface Scratch {
  /** Written from the start to the end, as zips are. */
  writable: FileSystemWritableFileStream
  /** Written to wherever asked, as containers are; closed by the one who writes. */
  positioned: WritableStream<StreamTargetChunk>
  /** The file, once its writer has closed it. */
  file: () => Promise<File>
  discard: () => Promise<void>
}

/** A file on disk, not in memory. What was made for the same purpose before is let go of. */
export async function scratchFile(purpose: string): Promise<Scratch> {
  const root = await navigator.storage.getDirectory()
  const folder = await root.getDirectoryHandle(FOLDER, { create: true })
  for await (const name of folder.keys())
    if (name.startsWith(`${purpose} `)) await folder.removeEntry(name).catch(quietly('a scratch file', 'NotFoundError'))
  const name = `${purpose} ${crypto.randomUUID()}`
  const handle = await folder.getFileHandle(name, { create: true })
  const writable = await handle.createWritable()
  const positioned = new WritableStream<StreamTargetChunk>({
    write: ({ data, position }) => writable.write({ type: 'write', data: data as Uint8Array<ArrayBuffer>, position }),
    close: () => writable.close(),
    abort: () => writable.abort(),
  })
  const file = () => handle.getFile()
  return {
    writable,
    positioned,
    file,
    async discard() {
      await writable.abort().catch(quietly('a scratch file'))
      await folder.removeEntry(name).catch(quietly('a scratch file', 'NotFoundError'))
    },
  }
}
