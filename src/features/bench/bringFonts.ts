import { listOwnFont } from '@/media/fonts/loadFonts'
import { fontBlob, keptFonts } from '@/store/fontFiles'
import { addRecords } from '@/edit/records'
import type { Bench } from './useBench'

/** Makes fonts that were added since the highlight was opened ready to be used in it. */
export async function bringFonts({ session, player, files }: Bench): Promise<void> {
  const missing = (await keptFonts()).filter((font) => session.value.fontFiles.every((f) => f.id !== font.id))
  if (missing.length === 0) return
  for (const { id, name } of missing) {
    const blob = await fontBlob(id)
    if (!blob) continue
    files.set(id, blob)
    listOwnFont(name, blob)
  }
  addRecords(session, { fontFiles: missing })
  await player.open(session.value, files)
}
