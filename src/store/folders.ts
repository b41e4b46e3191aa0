import { database } from './database'

/**
 * A folder of the person's that was chosen for something, where the browser gives a link to it. Whether it may still
 * be used, its permission tells.
 */
export async function chosenFolder(purpose: string): Promise<FileSystemDirectoryHandle | null> {
  const kept = await database().folders.get(purpose)
  return kept?.from.kind === 'linked' ? kept.from.handle : null
}

export async function keepFolder(purpose: string, handle: FileSystemDirectoryHandle): Promise<void> {
  await database().folders.put({ id: purpose, name: handle.name, language: null, from: { kind: 'linked', handle } })
}

export async function forgetFolder(purpose: string): Promise<void> {
  await database().folders.delete(purpose)
}
