import { BlobReader, configure, ZipWriter } from '@zip.js/zip.js'
import { scratchFile } from './scratch'

/** A file to go into a zip; `name` may hold folders, divided by slashes. */
export interface NamedBlob {
  name: string
  blob: Blob
}

/**
 * Puts files into one zip, on disk and not in memory, as they are: video does not get smaller. Beyond 4 GB it is a
 * Zip64. The zip made before it is let go of.
 */
export async function zipFiles(
  files: readonly NamedBlob[],
  onProgress: (share: number) => void = () => {},
): Promise<File> {
  configure({ useWebWorkers: false })
  const scratch = await scratchFile('zip')
  const total = files.reduce((sum, f) => sum + f.blob.size, 0)
  let done = 0
  try {
    const zip = new ZipWriter(scratch.writable, { level: 0, extendedTimestamp: false })
    for (const { name, blob } of files) {
      await zip.add(name, new BlobReader(blob))
      done += blob.size
      onProgress(total === 0 ? 1 : done / total)
    }
    await zip.close()
    return await scratch.file()
  } catch (error) {
    await scratch.discard()
    throw error
  }
}
