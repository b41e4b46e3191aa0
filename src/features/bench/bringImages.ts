import type { ImageFileId } from '@/core/model/ids'
import { keptImages } from '@/store/imageFiles'
import { storedFile } from '@/store/recordings'
import { addRecords } from '@/edit/records'
import type { Bench } from './useBench'

/**
 * Makes pictures that are kept ready to be shown in a highlight, which itself is not changed. Those that are there,
 * or gone from the rack, are passed over.
 */
export async function bringImages({ session, player, files }: Bench, ids: readonly ImageFileId[]): Promise<void> {
  const missing = [...new Set(ids)].filter((id) => session.value.imageFiles.every((f) => f.id !== id))
  if (missing.length === 0) return
  const records = await keptImages(missing)
  for (const { id } of records) {
    const stored = await storedFile(id)
    if (stored.ok) files.set(id, stored.file)
  }
  addRecords(session, { imageFiles: records })
  await player.open(session.value, files)
}
