import type { Edit } from '@/core/model/edit'
import type { Highlight } from '@/core/model/highlight'
import { fontTypeOf } from '@/core/model/fontFile'
import { database, type FileOwner } from './database'
import { copyHighlight } from './highlights'
import { holdFile, keepFile, storedFile } from './recordings'

/**
 * Puts edits that came in a file onto the Shelf, each as a highlight of its own. Recordings, sounds, pictures and fonts that are here already stay as they
 * are; of others the records are added, with the bytes that came along, which also take the place of lost ones. False in `kept` when the disk is full: they can then be used in this tab only.
 */
export async function bringInEdits(edits: readonly Edit[], bytes: ReadonlyMap<string, Blob>): Promise<{ highlights: Highlight[]; kept: boolean }> {
  const db = database()
  const added: { id: string; fileName: string }[] = []
  await db.transaction('rw', db.recordings, db.soundFiles, db.imageFiles, db.fontFiles, async () => {
    for (const { recordings, soundFiles, imageFiles, fontFiles } of edits) {
      for (const r of recordings) if (!(await db.recordings.get(r.id)) && added.push(r)) await db.recordings.put({ ...r, deletedAt: null, source: 'kept' })
      for (const r of soundFiles) if (!(await db.soundFiles.get(r.id)) && added.push(r)) await db.soundFiles.put(r)
      for (const r of imageFiles) if (!(await db.imageFiles.get(r.id)) && added.push(r)) await db.imageFiles.put(r)
      for (const r of fontFiles) if (bytes.has(r.id) && !(await db.fontFiles.get(r.id)) && added.push(r)) await db.fontFiles.put(r)
    }
  })
  // A record may be here whose bytes are not: it came without them, or they were lost.
  for (const record of edits.flatMap((e) => [...e.recordings, ...e.soundFiles, ...e.imageFiles])) {
    if (!bytes.has(record.id) || added.some((a) => a.id === record.id)) continue
    const stored = await storedFile(record.id)
    if (!stored.ok && stored.reason === 'gone') added.push(record)
  }
  let kept = true
  for (const { id, fileName } of added) {
    const blob = bytes.get(id)
    if (!blob) continue
    const file = new File([blob], fileName, { type: fontTypeOf(fileName) ?? typeOf(fileName) })
    holdFile(id as FileOwner, file)
    kept = (await keepFile({ owner: id as FileOwner, kind: 'kept', blob: file })).ok && kept
  }
  const highlights: Highlight[] = []
  for (const edit of edits) highlights.push(await copyHighlight(edit, edit.highlight.name))
  return { highlights, kept }
}

const TYPES: Record<string, string> = { png: 'image/png', jpg: 'image/jpeg', jpeg: 'image/jpeg', webp: 'image/webp', gif: 'image/gif', mp4: 'video/mp4', webm: 'video/webm', mkv: 'video/x-matroska' }

const typeOf = (fileName: string) => TYPES[fileName.split('.').at(-1)?.toLowerCase() ?? ''] ?? ''
