import type { Highlight } from '@/core/model/highlight'
import type { HighlightId, RecordingId, RenderId } from '@/core/model/ids'
import { recordingsIn } from '@/core/model/passage'
import type { Render } from '@/core/model/render'
import { deleteRenderFile } from '@/media/render/partFile'
import { nowStamp } from './clock'
import { database } from './database'
import { binHighlight } from './highlights'
import { readAll } from './readAll'
import { binRecording, letGoOfFile } from './recordings'

/** Something that was thrown away, and when. `sizeBytes`: what deleting it gives back. */
export type BinItem = { name: string; sizeBytes: number; thrownAwayAt: string } & (
  | { kind: 'recording'; id: RecordingId; /** How many highlights on the Shelf are cut from it. */ usedBy: number }
  | { kind: 'highlight'; id: HighlightId }
  | { kind: 'render'; id: RenderId }
)

/** Bytes of a finished file and of what was made beside it. */
export function bytesOfRender({ state }: Render): number {
  if (state.kind !== 'finished') return 0
  return state.file.sizeBytes + state.file.extras.reduce((sum, e) => sum + e.sizeBytes, 0)
}

/** What lies in the bin, newest first. */
export async function binItems(): Promise<BinItem[]> {
  const db = database()
  const [recordings, highlights, renders] = await Promise.all([
    db.recordings.toArray(),
    db.highlights.toArray(),
    db.renders.toArray(),
  ])
  const isThrownAway = (r: { deletedAt: string | null }) => r.deletedAt !== null && r.deletedAt !== undefined
  const onShelf = highlights.filter((h) => !isThrownAway(h))
  const items: BinItem[] = []
  for (const recording of readAll('recording', recordings.filter(isThrownAway))) {
    const { id, name, deletedAt } = recording
    const stored = await db.files.get(id)
    const usedBy = onShelf.filter((h) => uses(h, id)).length
    // Its bytes have been deleted, and what it says of itself is still needed: there is nothing left to throw away.
    if (!stored && usedBy > 0) continue
    items.push({
      kind: 'recording',
      id,
      name,
      usedBy,
      sizeBytes: stored?.kind === 'kept' ? stored.blob.size : 0,
      thrownAwayAt: deletedAt ?? '',
    })
  }
  for (const { id, name, deletedAt } of readAll('highlight', highlights.filter(isThrownAway)))
    items.push({ kind: 'highlight', id, name, sizeBytes: 0, thrownAwayAt: deletedAt ?? '' })
  for (const render of readAll('render', renders.filter(isThrownAway))) {
    const name = render.state.kind === 'finished' ? render.state.file.fileName : render.edit.highlight.name
    items.push({
      kind: 'render',
      id: render.id,
      name,
      sizeBytes: bytesOfRender(render),
      thrownAwayAt: render.deletedAt ?? '',
    })
  }
  return items.sort((a, b) => b.thrownAwayAt.localeCompare(a.thrownAwayAt))
}

const uses = ({ passages }: Highlight, id: RecordingId) => passages.some((p) => recordingsIn(p).includes(id))

export async function putBack({ kind, id }: BinItem): Promise<void> {
  if (kind === 'recording') await binRecording(id, false)
  else if (kind === 'highlight') await binHighlight(id, false)
  else await binRender(id, false)
}

/** Puts a finished file into the bin, or takes it out again. Its bytes stay until the bin is emptied. */
export async function binRender(id: RenderId, deleted: boolean): Promise<void> {
  await database().renders.update(id, { deletedAt: deleted ? nowStamp() : null })
}

/**
 * Deletes what was thrown away, for good: its bytes are free again. Highlights that are cut from a recording stay,
 * and ask for its file when they are opened; what the recording says of itself stays with them.
 */
export async function deleteForGood(items: readonly BinItem[]): Promise<void> {
  for (const { kind, id } of items) {
    if (kind === 'recording') await deleteRecording(id)
    else if (kind === 'highlight') await deleteHighlight(id)
    else {
      await deleteRenderFile(id)
      await database().renders.delete(id)
    }
  }
  await deleteUnneededRecords()
}

async function deleteRecording(id: RecordingId): Promise<void> {
  const db = database()
  letGoOfFile(id)
  const tables = [db.files, db.captionTexts, db.pictures, db.analyses, db.previewCopies, db.spottings, db.undo]
  await db.transaction('rw', tables, async () => {
    await db.files.delete(id)
    await db.captionTexts.delete(id)
    await db.pictures.delete(id)
    await db.analyses.where('recordingId').equals(id).delete()
    await db.previewCopies.where('recordingId').equals(id).delete()
    await db.spottings.delete(id)
    await db.undo.delete(id)
  })
}

async function deleteHighlight(id: HighlightId): Promise<void> {
  const db = database()
  await db.transaction('rw', [db.highlights, db.setups, db.layouts, db.undo, db.versions, db.pictures], async () => {
    await db.highlights.delete(id)
    await db.setups.where('ownedBy').equals(id).delete()
    await db.layouts.where('ownedBy').equals(id).delete()
    await db.undo.delete(id)
    await db.versions.where('highlightId').equals(id).delete()
    await db.pictures.delete(id)
  })
}

/** Recordings in the bin without bytes that no highlight is cut from. */
async function deleteUnneededRecords(): Promise<void> {
  const db = database()
  await db.transaction('rw', [db.recordings, db.highlights, db.files], async () => {
    const highlights = await db.highlights.toArray()
    for (const { id, deletedAt } of await db.recordings.toArray()) {
      const isNeeded =
        !deletedAt || highlights.some((h) => uses(h, id)) || (await db.files.where('owner').equals(id).count()) > 0
      if (!isNeeded) await db.recordings.delete(id)
    }
  })
}

/**
 * Bytes that Brimble keeps in this browser: of recordings, sounds, pictures and fonts, and of finished files. What
 * lies in the bin counts.
 */
export async function usedBytes(): Promise<number> {
  const db = database()
  let bytes = 0
  await db.files.each((stored) => {
    if (stored.kind === 'kept') bytes += stored.blob.size
  })
  await db.renders
    .where('state.kind')
    .equals('finished')
    .each((render) => {
      bytes += bytesOfRender(render)
    })
  return bytes
}
