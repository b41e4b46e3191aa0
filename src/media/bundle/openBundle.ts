import { BlobReader, BlobWriter, configure, ERR_UNSAFE_FILENAME, TextWriter, ZipReader, type FileEntry } from '@zip.js/zip.js'
import { BUNDLE_ENTRY, MOST_BUNDLE_JSON_BYTES, MOST_ENTRIES, RACK_ENTRY, readBundle, type BundleRefusal, type Carried } from '@/core/interchange/bundle'
import { MOST_RACK_FILE_BYTES } from '@/core/interchange/rackFile'
import type { Edit } from '@/core/model/edit'

export type ZipRefusal = BundleRefusal | 'not-a-zip' | 'too-many-entries' | 'bad-name' | 'too-large' | 'bomb' | 'missing-entry' | 'damaged'
export type BundleOpened = { ok: true; edits: Edit[]; rack: string | null; files: { of: Carried; blob: Blob }[] } | { ok: false; reason: ZipRefusal; detail: string }

/** Media hardly gets smaller: what unpacks to so many times its size is not media. */
const MOST_GROWTH = 100
/** The largest a bundle's contents may be. */
const MOST_BYTES = 200e9

class Refused extends Error {
  constructor(readonly reason: ZipRefusal, readonly detail: string) {
    super(reason)
  }
}

/** Opens a bundle: nothing of it is kept unless all of it can be read. Names are never used as paths; what is not in the list is left unread. */
export async function openBundle(zip: Blob): Promise<BundleOpened> {
  configure({ useWebWorkers: false })
  const reader = new ZipReader(new BlobReader(zip))
  try {
    const entries = await reader.getEntries().catch(refuseUnread)
    if (entries.length > MOST_ENTRIES + 2) refuse('too-many-entries', `${entries.length}`)
    const byName = new Map<string, FileEntry>()
    for (const entry of entries) {
      if (entry.directory) continue
      checkEntry(entry)
      byName.set(entry.filename, entry)
    }
    if ([...byName.values()].reduce((sum, e) => sum + e.uncompressedSize, 0) > MOST_BYTES) refuse('too-large', '')
    const read = readBundle(await textOf(byName.get(BUNDLE_ENTRY), BUNDLE_ENTRY, MOST_BUNDLE_JSON_BYTES))
    if (!read.ok) return read
    const rackEntry = byName.get(RACK_ENTRY)
    const rack = rackEntry ? await textOf(rackEntry, RACK_ENTRY, MOST_RACK_FILE_BYTES) : null
    const files = []
    for (const of of read.carried) files.push({ of, blob: await blobOf(byName.get(of.entry), of) })
    return { ok: true, edits: read.edits, rack, files }
  } catch (error) {
    if (error instanceof Refused) return { ok: false, reason: error.reason, detail: error.detail }
    return { ok: false, reason: 'damaged', detail: error instanceof Error ? error.message : String(error) }
  } finally {
    await reader.close().catch(() => {})
  }
}

function refuse(reason: ZipRefusal, detail: string): never {
  throw new Refused(reason, detail)
}

/** Names that lead out of a folder are refused by the library before they can be looked at. */
function refuseUnread(error: unknown): never {
  const { message, filename } = error as { message?: string; filename?: string }
  if (message === ERR_UNSAFE_FILENAME) refuse('bad-name', String(filename ?? '').slice(0, 120))
  refuse('not-a-zip', '')
}

function checkEntry({ filename, uncompressedSize, compressedSize, encrypted }: FileEntry): void {
  if (encrypted) refuse('damaged', 'it asks for a password')
  if (uncompressedSize > 1_000_000 && uncompressedSize > MOST_GROWTH * compressedSize) refuse('bomb', filename.slice(0, 120))
}

async function textOf(entry: FileEntry | undefined, name: string, most: number): Promise<string> {
  if (!entry) refuse(name === BUNDLE_ENTRY ? 'not-a-bundle' : 'missing-entry', name)
  if (entry.uncompressedSize > most) refuse('too-large', name)
  return entry.getData(new TextWriter(), { checkSignature: true })
}

async function blobOf(entry: FileEntry | undefined, { entry: name, sizeBytes }: Carried): Promise<Blob> {
  if (!entry) refuse('missing-entry', name)
  if (entry.uncompressedSize !== sizeBytes) refuse('damaged', name)
  return entry.getData(new BlobWriter(), { checkSignature: true })
}
