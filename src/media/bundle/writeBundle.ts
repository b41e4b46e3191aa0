import { BlobReader, configure, TextReader, ZipWriter } from '@zip.js/zip.js'
import { usedSpans } from '@/core/cut/usedSpans'
import { BUNDLE_ENTRY, entryFor, RACK_ENTRY, writeBundle, type Carried } from '@/core/interchange/bundle'
import { usedFiles, usedRecordings, type Edit } from '@/core/model/edit'
import type { SpeechOf } from '@/core/sound/ducking'
import { scratchFile } from '../zip/scratch'
import { trimRecording } from './trimRecording'

/** So much is kept on either side of what is used, for cuts to be moved. */
const HANDLE_MICROS = 3_000_000

export type MediaIn = 'none' | 'trimmed' | 'whole'

export interface BundleJob {
  edits: readonly Edit[]
  /** Where their recordings hold speech. */
  speechOf: SpeechOf
  /** What goes with them out of the rack, as a rack's file. */
  rack: string | null
  media: MediaIn
  /** Bytes of everything that the edits use, by id. */
  files: ReadonlyMap<string, Blob>
}

/** Puts edits, and what they use, into one zip on disk. Rejects when a file cannot be read or the disk is full. */
export async function makeBundle(
  { edits, speechOf, rack, media, files }: BundleJob,
  onProgress: (share: number) => void,
): Promise<File> {
  configure({ useWebWorkers: false })
  const zipFile = await scratchFile('zip')
  const zip = new ZipWriter(zipFile.writable, { level: 0, extendedTimestamp: false })
  const recordings = media === 'none' ? [] : unique(edits.flatMap(usedRecordings))
  const others = unique(edits.flatMap(usedFiles))
  const carried: Carried[] = []
  let done = 0
  const step = () => onProgress(++done / (recordings.length + others.length + 1))
  try {
    for (const [n, recording] of recordings.entries()) {
      const file = files.get(recording.id)
      if (!file) throw new Error(`“${recording.fileName}” is missing`)
      const trimmed = media === 'trimmed' ? await trimmedCopy(edits, recording, file) : null
      const blob = trimmed?.file ?? file
      const entry = entryFor('media', n, trimmed ? `x.${trimmed.ending}` : recording.fileName)
      await zip.add(entry, new BlobReader(blob))
      carried.push({ id: recording.id, entry, sizeBytes: blob.size, trimmed: trimmed !== null })
      await trimmed?.remove()
      step()
    }
    for (const [n, { id, fileName }] of others.entries()) {
      const file = files.get(id)
      if (!file) throw new Error(`“${fileName}” is missing`)
      const entry = entryFor('files', n, fileName)
      await zip.add(entry, new BlobReader(file))
      carried.push({ id, entry, sizeBytes: file.size, trimmed: false })
      step()
    }
    await zip.add(BUNDLE_ENTRY, new TextReader(writeBundle(edits, speechOf, carried)), { level: 6 })
    if (rack !== null) await zip.add(RACK_ENTRY, new TextReader(rack), { level: 6 })
    await zip.close()
    return await zipFile.file()
  } catch (error) {
    await zipFile.discard()
    throw error
  }
}

async function trimmedCopy(
  edits: readonly Edit[],
  { id, originMicros }: { id: Edit['recordings'][number]['id']; originMicros: number },
  file: Blob,
) {
  const scratch = await scratchFile('trimmed')
  const trimmed = await trimRecording(file, originMicros, usedSpans(edits, id, HANDLE_MICROS), scratch.positioned)
  // What no container of ours holds goes as it is.
  if (!trimmed.ok) {
    await scratch.discard()
    return null
  }
  return { file: await scratch.file(), ending: trimmed.ending, remove: scratch.discard }
}

function unique<T extends { id: string }>(records: readonly T[]): T[] {
  return [...new Map(records.map((r) => [r.id, r])).values()]
}
