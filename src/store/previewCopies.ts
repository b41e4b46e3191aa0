import { z } from 'zod'
import type { RecordingId } from '@/core/model/ids'
import type { Piece } from '@/core/time/pieces'
import { note } from '@/diagnostics/note'
import { database } from './database'

/** A piece of a recording in the size for looking. It can be made again: it goes first when room is short. */
export interface StoredPreviewCopy extends Piece {
  file: Blob
  /** When it was last asked for, ms since 1970. */
  usedAt: number
}
export type PreviewCopyKey = [RecordingId, number]

const GIB = 2 ** 30

const previewSettings = z.object({
  /** Bytes that preview copies may take in this browser; 0 for none at all. */
  maxBytes: z
    .number()
    .int()
    .min(0)
    .max(64 * GIB)
    .default(GIB),
})
export type PreviewSettings = z.infer<typeof previewSettings>

const KEY = 'previewCopies'

export async function readPreviewSettings(): Promise<PreviewSettings> {
  const kept = previewSettings.safeParse((await database().settings.get(KEY))?.value ?? {})
  return kept.success ? kept.data : previewSettings.parse({})
}

/** Changes how much room preview copies may take; what lies beyond it goes at once. */
export async function changePreviewSettings(change: PreviewSettings): Promise<void> {
  await database().settings.put({ key: KEY, value: change })
  await removeBeyond(change.maxBytes, [])
}

const keyOf = ({ recordingId, index }: Piece): PreviewCopyKey => [recordingId, index]

/** Those of these pieces that there are copies of; they count as used now. */
export async function previewCopiesOf(pieces: readonly Piece[]): Promise<StoredPreviewCopy[]> {
  const table = database().previewCopies
  const found = (await table.bulkGet(pieces.map(keyOf))).filter((copy) => copy !== undefined)
  const usedAt = Date.now()
  await Promise.all(found.map((copy) => table.update(keyOf(copy), { usedAt })))
  return found
}

/**
 * Keeps a copy; others that are not `needed` go where there would be too many, those used longest ago first. Says
 * whether it was kept: that it was not is no misfortune.
 */
export async function keepPreviewCopy(piece: Piece, file: Blob, needed: readonly Piece[]): Promise<boolean> {
  try {
    await database().previewCopies.put({ ...piece, file, usedAt: Date.now() })
    await removeBeyond((await readPreviewSettings()).maxBytes, needed)
    return true
  } catch (error) {
    note('keeping a preview copy', error)
    return false
  }
}

async function removeBeyond(maxBytes: number, needed: readonly Piece[]): Promise<void> {
  const table = database().previewCopies
  const isNeeded = new Set(needed.map((piece) => String(keyOf(piece))))
  await database().transaction('rw', table, async () => {
    const copies = await table.orderBy('usedAt').toArray()
    let bytes = copies.reduce((sum, { file }) => sum + file.size, 0)
    for (const copy of copies) {
      if (bytes <= maxBytes) return
      if (isNeeded.has(String(keyOf(copy)))) continue
      await table.delete(keyOf(copy))
      bytes -= copy.file.size
    }
  })
}

/** Bytes that preview copies take. */
export async function previewCopyBytes(): Promise<number> {
  let bytes = 0
  await database().previewCopies.each(({ file }) => {
    bytes += file.size
  })
  return bytes
}

/** Removes all preview copies. */
export async function removePreviewCopies(): Promise<void> {
  await database().previewCopies.clear()
}
