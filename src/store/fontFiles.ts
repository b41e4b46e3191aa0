import { freeName } from '@/core/interchange/freeName'
import { fontTypeOf, type FontFile } from '@/core/model/fontFile'
import { SHIPPED_FONTS } from '@/core/model/fonts'
import type { FontFileId } from '@/core/model/ids'
import { newRecord } from '@/core/model/record'
import { newId } from '@/core/model/ids'
import { nowStamp } from './clock'
import { database } from './database'
import { readAll } from './readAll'
import { holdFile, keepRecordWithFile, storedFile } from './recordings'

/** The largest fonts, of all Chinese characters, have about half of this. */
const MAX_BYTES = 40_000_000

/** Every font that was added in this browser. */
export async function keptFonts(): Promise<FontFile[]> {
  return readAll('fontFile', await database().fontFiles.toArray())
    .filter((f) => !f.deletedAt)
    .sort((a, b) => a.name.localeCompare(b.name))
}

/** A font's bytes; null where they are gone. */
export async function fontBlob(id: FontFileId): Promise<Blob | null> {
  const stored = await storedFile(id)
  return stored.ok ? stored.file : null
}

/** Keeps a font under its file's name; null for what no browser would draw with. */
export async function addFontFile(file: File): Promise<FontFile | null> {
  const type = fontTypeOf(file.name)
  if (!type || file.size > MAX_BYTES) return null
  const bytes = await file.arrayBuffer()
  const readable = await new FontFace('to be tried', bytes).load().then(
    () => true,
    () => false,
  )
  if (!readable) return null
  const plain =
    file.name
      .replace(/\.[^.]+$/, '')
      .replace(/[_-]+/g, ' ')
      .replace(/["\\]/g, '')
      .trim()
      .slice(0, 80) || 'Own font'
  const name = freeName(plain, [...SHIPPED_FONTS, ...(await keptFonts()).map((f) => f.name)])
  const record: FontFile = {
    ...newRecord(nowStamp()),
    id: newId<FontFileId>(),
    name,
    fileName: file.name.slice(0, 1000),
    sizeBytes: file.size,
  }
  const blob = new File([bytes], file.name, { type })
  await keepRecordWithFile(database().fontFiles, record, { owner: record.id, kind: 'kept', blob })
  holdFile(record.id, blob)
  return record
}
