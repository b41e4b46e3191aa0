import { database, isStorageFull, type StoredFolder } from './database'
import type { KeepResult } from './recordings'

/** There is one at a time. */
const ID = 'whisper'

/** Deeper than a model's folder is; what lies below is not looked at. */
const DEEPEST = 2
/** More files than any model has: somebody chose another folder. */
const MAX_FILES = 500

/** The folder that was chosen last, and the language to write; undefined when none was. */
export async function whisperFolder(): Promise<StoredFolder | undefined> {
  return database().folders.get(ID)
}

/** Keeps what was chosen: a link where the browser gives one, else a copy of the files that are needed. */
export async function keepWhisperFolder(folder: Omit<StoredFolder, 'id'>): Promise<KeepResult> {
  try {
    await database().folders.put({ ...folder, id: ID })
    return { ok: true }
  } catch (error) {
    return { ok: false, reason: isStorageFull(error) ? 'no-room' : 'storage-failed' }
  }
}

export async function setWhisperLanguage(language: string | null): Promise<void> {
  await database().folders.update(ID, { language })
}

export async function forgetWhisperFolder(): Promise<void> {
  await database().folders.delete(ID)
}

/**
 * A kept folder's files by path; null when it is gone or may not be read. Must be called from a person's own action,
 * since the browser may ask.
 */
export async function filesOfFolder({ from }: StoredFolder): Promise<ReadonlyMap<string, Blob> | null> {
  if (from.kind === 'kept') return from.files
  try {
    if ((await from.handle.requestPermission({ mode: 'read' })) !== 'granted') return null
    return await filesIn(from.handle)
  } catch {
    return null
  }
}

/** Every file of a folder by its path in it, as far as a model's folder goes. */
export async function filesIn(directory: FileSystemDirectoryHandle): Promise<ReadonlyMap<string, Blob>> {
  const files = new Map<string, Blob>()
  const walk = async (from: FileSystemDirectoryHandle, path: string, depth: number): Promise<void> => {
    for await (const [name, handle] of from.entries()) {
      if (files.size >= MAX_FILES) return
      if (handle instanceof FileSystemFileHandle) files.set(`${path}${name}`, await handle.getFile())
      else if (handle instanceof FileSystemDirectoryHandle && depth < DEEPEST)
        await walk(handle, `${path}${name}/`, depth + 1)
    }
  }
  await walk(directory, '', 1)
  return files
}
