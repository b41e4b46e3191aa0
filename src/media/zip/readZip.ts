import { explain, quietly } from '@/diagnostics/note'
import {
  BlobReader,
  BlobWriter,
  configure,
  ERR_UNSAFE_FILENAME,
  TextWriter,
  ZipReader,
  type FileEntry,
} from '@zip.js/zip.js'

/** Why a zip was refused. */
export type ZipFault =
  'not-a-zip' | 'too-many-entries' | 'bad-name' | 'too-large' | 'bomb' | 'missing-entry' | 'damaged'

/** Media hardly gets smaller: what unpacks to so many times its size is not media. */
const MAX_GROWTH = 100
/** The record at a zip's end, with the longest comment that it can have. */
const END_BYTES = 22 + 65_535
/** The largest a zip's contents may be. */
const MAX_BYTES = 200e9

class Refused extends Error {
  constructor(
    readonly reason: ZipFault,
    readonly detail: string,
  ) {
    super(reason)
  }
}

function refuse(reason: ZipFault, detail: string): never {
  throw new Refused(reason, detail)
}

/** A zip whose names and sizes have been looked at. What cannot be read of it ends the reading. */
export class OpenZip {
  constructor(private readonly byName: ReadonlyMap<string, FileEntry>) {}

  has(name: string): boolean {
    return this.byName.has(name)
  }

  /** Text of at most `most` bytes. */
  async text(name: string, most: number): Promise<string> {
    const entry = this.byName.get(name)
    if (!entry) refuse('missing-entry', name)
    if (entry.uncompressedSize > most) refuse('too-large', name)
    return entry.getData(new TextWriter(), { checkSignature: true })
  }

  /** A file that is to have this size. */
  async blob(name: string, sizeBytes: number, type = ''): Promise<Blob> {
    const entry = this.byName.get(name)
    if (!entry) refuse('missing-entry', name)
    if (entry.uncompressedSize !== sizeBytes) refuse('damaged', name)
    return entry.getData(new BlobWriter(type), { checkSignature: true })
  }
}

export type ZipRead<T> = { ok: true; value: T } | { ok: false; reason: ZipFault; detail: string }

/** Opens a zip and reads from it. Names are never used as paths; what `read` does not ask for is left unread. */
export async function readZip<T>(
  zip: Blob,
  mostEntries: number,
  read: (open: OpenZip) => Promise<T>,
): Promise<ZipRead<T>> {
  configure({ useWebWorkers: false })
  const reader = new ZipReader(new BlobReader(zip))
  try {
    const told = await entriesTold(zip)
    if (told !== null && told > mostEntries) refuse('too-many-entries', `${told}`)
    const byName = await entriesOf(reader, mostEntries)
    if ([...byName.values()].reduce((sum, e) => sum + e.uncompressedSize, 0) > MAX_BYTES) refuse('too-large', '')
    return { ok: true, value: await read(new OpenZip(byName)) }
  } catch (error) {
    if (error instanceof Refused) return { ok: false, reason: error.reason, detail: error.detail }
    return { ok: false, reason: 'damaged', detail: explain('reading an archive', error) }
  } finally {
    await reader.close().catch(quietly('reading an archive'))
  }
}

/**
 * How many entries a zip says at its end that it has (APPNOTE 4.3.16), which is read at once; null where it does not
 * say, or says that it is more than sixteen bits hold.
 */
async function entriesTold(zip: Blob): Promise<number | null> {
  const end = new DataView(await zip.slice(Math.max(0, zip.size - END_BYTES)).arrayBuffer())
  for (let at = end.byteLength - 22; at >= 0; at--) {
    if (end.getUint32(at, true) !== 0x06054b50) continue
    const count = end.getUint16(at + 10, true)
    return count === 0xffff ? null : count
  }
  return null
}

/** Entries by name, looked at one by one: a zip of a hundred thousand is given up at the first that is too many. */
async function entriesOf(reader: ZipReader<unknown>, most: number): Promise<Map<string, FileEntry>> {
  const byName = new Map<string, FileEntry>()
  const entries = reader.getEntriesGenerator()
  for (let count = 1; ; count++) {
    const { value: entry, done } = await entries.next().catch(refuseUnread)
    if (done || !entry) return byName
    if (count > most) refuse('too-many-entries', `${most}`)
    if (entry.directory) continue
    checkEntry(entry)
    byName.set(entry.filename, entry)
  }
}

/** Names that lead out of a folder are refused by the library before they can be looked at. */
function refuseUnread(error: unknown): never {
  const { message, filename } = error as { message?: string; filename?: string }
  if (message === ERR_UNSAFE_FILENAME) refuse('bad-name', String(filename ?? '').slice(0, 120))
  refuse('not-a-zip', '')
}

function checkEntry({ filename, uncompressedSize, compressedSize, encrypted }: FileEntry): void {
  if (encrypted) refuse('damaged', 'it asks for a password')
  if (uncompressedSize > 1_000_000 && uncompressedSize > MAX_GROWTH * compressedSize)
    refuse('bomb', filename.slice(0, 120))
}
