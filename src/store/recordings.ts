import { usedFiles, usedRecordings, type Edit } from '@/core/model/edit'
import { newRecord } from '@/core/model/record'
import { readRecord } from '@/core/model/migrate'
import type { RecordingId } from '@/core/model/ids'
import type { Recording } from '@/core/model/recording'
import type { Table } from 'dexie'
import { newId } from '@/core/model/ids'
import { note } from '@/diagnostics/note'
import { nowStamp } from './clock'
import { database, isStorageFull, type FileOwner, type StoredFile } from './database'
import { readAll } from './readAll'
import { withRoom } from './withRoom'

export type NewRecording = Omit<Recording, 'id' | 'schemaVersion' | 'createdAt' | 'updatedAt' | 'deletedAt'>

/** Files chosen in this tab, usable at once while a copy is being kept, and when none could be. */
const atHand = new Map<FileOwner, File>()

/** Makes a file usable in this tab while its copy is being kept. */
export function holdFile(owner: FileOwner, file: File): void {
  atHand.set(owner, file)
}

/** Forgets a file that was at hand: it has been deleted. */
export function letGoOfFile(owner: FileOwner): void {
  atHand.delete(owner)
}

/** Where a recording's bytes are kept: in a copy of their own, or in the person's file. */
export type FilePlace = { kind: 'kept' } | { kind: 'linked'; handle: FileSystemFileHandle }

/**
 * Puts a recording onto the Shelf with its bytes and with the captions that lay beside it, all or nothing: a browser
 * that ends on the way leaves no recording without bytes. Where there is no room for them the recording is there all
 * the same, for this tab to use its file. Throws TypeError when the facts are no recording's.
 */
export async function addRecording(
  facts: NewRecording,
  file: File,
  place: FilePlace,
  id: RecordingId = newId<RecordingId>(),
  captions: File | null = null,
): Promise<{ recording: Recording; kept: KeepResult }> {
  const checked = readRecord('recording', { ...newRecord(nowStamp()), ...facts, id })
  if (!checked.ok) throw new TypeError(`recording: ${checked.problems.join('; ')}`)
  const db = database()
  const text = captions && { recordingId: id, fileName: captions.name, blob: captions }
  const kept = await keepRecordWithFile(db.recordings, checked.record, storedAt(id, file, place), async () => {
    if (text) await db.captionTexts.put(text)
  })
  holdFile(id, file)
  return { recording: checked.record, kept }
}

const storedAt = (owner: FileOwner, file: File, place: FilePlace): StoredFile =>
  place.kind === 'kept' ? { owner, kind: 'kept', blob: file } : { owner, ...place }

/**
 * Writes a record together with the bytes that it stands for, and with what `more` writes; without room for the bytes
 * the record alone.
 */
export async function keepRecordWithFile<T extends { id: FileOwner }>(
  table: Table<T, T['id']>,
  record: T,
  stored: StoredFile,
  more: () => Promise<void> = () => Promise.resolve(),
): Promise<KeepResult> {
  const db = database()
  const write = async (withFile: boolean): Promise<void> => {
    await db.transaction('rw', [table, db.files, db.captionTexts], async () => {
      await table.put(record)
      if (withFile) await db.files.put(stored)
      await more()
    })
  }
  try {
    await withRoom(() => write(true))
    return { ok: true }
  } catch (error) {
    await write(false)
    return notKept(error)
  }
}

function notKept(error: unknown): KeepResult {
  note('keeping a recording', error)
  return { ok: false, reason: isStorageFull(error) ? 'no-room' : 'storage-failed' }
}

export type KeepResult = { ok: true } | { ok: false; reason: 'no-room' | 'storage-failed' }

/** Keeps a copy of a recording's bytes, or a link to the file they are in. The tab can use the file meanwhile. */
export async function keepFile(stored: StoredFile): Promise<KeepResult> {
  try {
    await withRoom(() => database().files.put(stored))
    // Copies were made of the bytes before.
    await database().previewCopies.where('recordingId').equals(stored.owner).delete()
    return { ok: true }
  } catch (error) {
    return notKept(error)
  }
}

export type FileResult = { ok: true; file: File | Blob } | { ok: false; reason: 'gone' | 'needs-permission' }

/** The bytes of a recording or sound file; says whether they are gone or only need the person's permission again. */
export async function storedFile(id: FileOwner): Promise<FileResult> {
  const here = atHand.get(id)
  if (here) return { ok: true, file: here }
  const stored = await database().files.get(id)
  if (!stored) return { ok: false, reason: 'gone' }
  if (stored.kind === 'kept') return readable(stored.blob)
  if ((await stored.handle.queryPermission({ mode: 'read' })) !== 'granted')
    return { ok: false, reason: 'needs-permission' }
  return stored.handle.getFile().then(readable, () => ({ ok: false, reason: 'gone' }) as const)
}

/** The bytes of everything that an edit plays and shows, by id, and the ids of what is not there. */
export async function filesOfEdit(edit: Edit): Promise<{ files: Map<string, Blob>; missing: Set<string> }> {
  const files = new Map<string, Blob>()
  const missing = new Set<string>()
  for (const { id } of [...usedRecordings(edit), ...usedFiles(edit)]) {
    const stored = await storedFile(id)
    if (stored.ok) files.set(id, stored.file)
    else missing.add(id)
  }
  return { files, missing }
}

/** Asks for permission to a linked file again; must be called from a person's own action. */
export async function askForFile(id: RecordingId): Promise<FileResult> {
  const stored = await database().files.get(id)
  if (stored?.kind !== 'linked') return storedFile(id)
  if ((await stored.handle.requestPermission({ mode: 'read' })) !== 'granted')
    return { ok: false, reason: 'needs-permission' }
  return storedFile(id)
}

/** Puts a file chosen again in a recording's place. */
export async function relink(id: RecordingId, file: File, place: FilePlace): Promise<KeepResult> {
  holdFile(id, file)
  return keepFile(storedAt(id, file, place))
}

async function readable(file: Blob): Promise<FileResult> {
  try {
    await file.slice(0, 1).arrayBuffer()
    return { ok: true, file }
  } catch {
    return { ok: false, reason: 'gone' }
  }
}

/** A recording, brought up to date; null when there is none of that id that can be read. */
export async function getRecording(id: RecordingId): Promise<Recording | null> {
  const read = readRecord('recording', await database().recordings.get(id))
  return read.ok ? read.record : null
}

/** Every recording that is not in the bin, newest first. */
export async function recordingsOnShelf(): Promise<Recording[]> {
  const all = await database().recordings.orderBy('recordedAt').reverse().toArray()
  return readAll(
    'recording',
    all.filter((r) => !r.deletedAt),
  )
}

/** Gives a recording another name. Its pictures stay those of its bytes. */
export async function renameRecording(id: RecordingId, name: string): Promise<void> {
  const db = database()
  const updatedAt = nowStamp()
  await db.transaction('rw', db.recordings, db.pictures, async () => {
    await db.recordings.update(id, { name, updatedAt })
    await db.pictures.update(id, { madeFor: updatedAt })
  })
}

/** Puts a recording into the bin, or takes it out again. Its highlights and files stay. */
export async function binRecording(id: RecordingId, deleted: boolean): Promise<void> {
  await database().recordings.update(id, { deletedAt: deleted ? nowStamp() : null })
}
