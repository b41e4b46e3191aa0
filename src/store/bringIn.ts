import { withRoom } from './withRoom'
import type { Filed } from '@/core/interchange/rackFile'
import type { Edit } from '@/core/model/edit'
import type { Highlight } from '@/core/model/highlight'
import { fontTypeOf } from '@/core/model/fontFile'
import { database, type FileOwner } from './database'
import { copyHighlight } from './highlights'
import { addFiled } from './rackFiles'
import { holdFile, storedFile } from './recordings'

/**
 * What came in a file: edits, the bytes of recordings, sounds, pictures and fonts by their ids, and what goes into
 * the Rack.
 */
export interface Incoming {
  edits: readonly Edit[]
  bytes: ReadonlyMap<string, Blob>
  filed: Filed | null
}

/**
 * Puts edits that came in a file onto the Shelf, each as a highlight of its own, and what came with them, in one
 * transaction: all of it is there, or none. Recordings, sounds, pictures and fonts that are here already stay as they
 * are; of others the records are added, with the bytes that came along, which also take the place of lost ones.
 * Rejects when the disk is full.
 */
export async function bringInEdits({ edits, bytes, filed }: Incoming): Promise<Highlight[]> {
  const db = database()
  const lost = await idsOfLostFiles(edits, bytes)
  const held = new Map<FileOwner, File>()
  const highlights = await withRoom(() =>
    db.transaction('rw', db.tables, async () => {
      if (filed) await addFiled(filed)
      const putFile = async ({ id, fileName }: { id: string; fileName: string }) => {
        const blob = bytes.get(id)
        if (!blob) return
        const file = new File([blob], fileName, { type: fontTypeOf(fileName) ?? typeOf(fileName) })
        held.set(id as FileOwner, file)
        await db.files.put({ owner: id as FileOwner, kind: 'kept', blob: file })
      }
      for (const { recordings, soundFiles, imageFiles, fontFiles } of edits) {
        for (const r of recordings)
          if (!(await db.recordings.get(r.id)))
            await db.recordings.put({ ...r, deletedAt: null, source: 'kept' }).then(() => putFile(r))
        for (const r of soundFiles)
          if (!(await db.soundFiles.get(r.id))) await db.soundFiles.put(r).then(() => putFile(r))
        for (const r of imageFiles)
          if (!(await db.imageFiles.get(r.id))) await db.imageFiles.put(r).then(() => putFile(r))
        for (const r of fontFiles)
          if (bytes.has(r.id) && !(await db.fontFiles.get(r.id))) await db.fontFiles.put(r).then(() => putFile(r))
        for (const r of [...recordings, ...soundFiles, ...imageFiles]) if (lost.has(r.id)) await putFile(r)
      }
      const made: Highlight[] = []
      for (const edit of edits) made.push(await copyHighlight(edit, edit.highlight.name))
      return made
    }),
  )
  for (const [owner, file] of held) holdFile(owner, file)
  return highlights
}

/**
 * What is here as a record whose bytes are gone, and came along now. Looked at before anything is written: reading
 * files would end the transaction.
 */
async function idsOfLostFiles(edits: readonly Edit[], bytes: ReadonlyMap<string, Blob>): Promise<ReadonlySet<string>> {
  const lost = new Set<string>()
  for (const { id } of edits.flatMap((e) => [...e.recordings, ...e.soundFiles, ...e.imageFiles])) {
    if (!bytes.has(id)) continue
    const stored = await storedFile(id)
    if (!stored.ok && stored.reason === 'gone') lost.add(id)
  }
  return lost
}

const TYPES: Record<string, string> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  webp: 'image/webp',
  gif: 'image/gif',
  mp4: 'video/mp4',
  webm: 'video/webm',
  mkv: 'video/x-matroska',
}

const typeOf = (fileName: string) => TYPES[fileName.split('.').at(-1)?.toLowerCase() ?? ''] ?? ''
