import { database, isStorageFull } from './database'
import { removePreviewCopies } from './previewCopies'

/**
 * Writes what cannot be made again. Where the browser has no room for it, preview copies, which can, are removed and
 * it is tried once more. Rejects as `write` does.
 */
export async function withRoom<T>(write: () => Promise<T>): Promise<T> {
  try {
    return await write()
  } catch (error) {
    if (!isStorageFull(error) || !(await makeRoom())) throw error
    return write()
  }
}

/** Removes what can be made again; says whether there was any. */
export async function makeRoom(): Promise<boolean> {
  if ((await database().previewCopies.count()) === 0) return false
  await removePreviewCopies()
  return true
}
