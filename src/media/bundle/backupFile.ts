import { BlobReader, configure, TextReader, ZipWriter } from '@zip.js/zip.js'
import {
  BACKUP_ENTRY,
  MAX_BACKUP_ENTRIES,
  MAX_BACKUP_JSON_BYTES,
  readBackup,
  writeBackup,
  type BackedUp,
  type BackupRecords,
  type BackupRefusal,
} from '@/core/interchange/backup'
import { scratchFile } from '../zip/scratch'
import { readZip, type ZipFault } from '../zip/readZip'

/** Bytes that go into a backup, or came out of one. */
export type Bytes = Omit<BackedUp, 'entry' | 'sizeBytes'> & { blob: Blob }

/**
 * Puts records and bytes into one zip on disk. Rejects when a file cannot be read, the disk is full, or `signal` says
 * to stop; nothing is left then.
 */
export async function makeBackup(
  records: BackupRecords,
  files: readonly Bytes[],
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<File> {
  configure({ useWebWorkers: false })
  const scratch = await scratchFile('backup')
  const total = files.reduce((sum, f) => sum + f.blob.size, 1)
  let done = 0
  try {
    const zip = new ZipWriter(scratch.writable, { level: 0, extendedTimestamp: false })
    const carried: BackedUp[] = []
    for (const [n, { blob, ...of }] of files.entries()) {
      const entry = `files/${n + 1}.${/\.([A-Za-z0-9]{1,8})$/.exec(of.fileName)?.[1]?.toLowerCase() ?? 'bin'}`
      const before = done
      await zip.add(entry, new BlobReader(blob), {
        signal,
        onprogress: (part: number) => (onProgress((before + part) / total), undefined),
      })
      done += blob.size
      carried.push({ ...of, entry, sizeBytes: blob.size })
      onProgress(done / total)
    }
    await zip.add(BACKUP_ENTRY, new TextReader(writeBackup(new Date().toISOString(), records, carried)), {
      level: 6,
      signal,
    })
    await zip.close()
    return await scratch.file()
  } catch (error) {
    await scratch.discard()
    throw error
  }
}

export type BackupOpened =
  | { ok: true; madeAt: string; records: BackupRecords; files: Bytes[]; unread: number }
  | { ok: false; reason: BackupRefusal | ZipFault; detail: string }

/** Whether a zip is a backup; false also for one that cannot be read. */
export async function isBackup(zip: Blob): Promise<boolean> {
  const read = await readZip(zip, MAX_BACKUP_ENTRIES + 1, (open) => Promise.resolve(open.has(BACKUP_ENTRY)))
  return read.ok && read.value
}

/** Opens a backup: nothing of it is put back unless all of its bytes can be read. */
export async function openBackup(zip: Blob, onProgress: (share: number) => void): Promise<BackupOpened> {
  const opened = await readZip<BackupOpened>(zip, MAX_BACKUP_ENTRIES + 1, async (open) => {
    if (!open.has(BACKUP_ENTRY)) return { ok: false, reason: 'not-a-backup', detail: '' }
    const read = readBackup(await open.text(BACKUP_ENTRY, MAX_BACKUP_JSON_BYTES))
    if (!read.ok) return read
    const files: Bytes[] = []
    for (const { entry, sizeBytes, ...of } of read.carried) {
      files.push({ ...of, blob: await open.blob(entry, sizeBytes, of.type) })
      onProgress(files.length / read.carried.length)
    }
    return { ok: true, madeAt: read.madeAt, records: read.records, files, unread: read.unread }
  })
  return opened.ok ? opened.value : opened
}
