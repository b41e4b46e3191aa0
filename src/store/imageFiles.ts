import { IMAGE_HEADER_BYTES, imageSize } from '@/core/picture/imageHeader'
import { IMAGE_TYPES, SVG_TYPE, type ImageFile } from '@/core/model/imageFile'
import type { ImageFileId } from '@/core/model/ids'
import { readRecord } from '@/core/model/migrate'
import { newRecord } from '@/core/model/record'
import { drawnSvg } from '@/media/source/drawnSvg'
import { newId } from '@/core/model/ids'
import { nullOnError } from '@/diagnostics/note'
import { nowStamp } from './clock'
import { database } from './database'
import { readAll } from './readAll'
import { holdFile, keepRecordWithFile } from './recordings'

/** Larger files are not pictures for a backdrop. */
const MAX_BYTES = 60_000_000
/** Nor are such with more pixels in all (4 bytes each once decoded), or a longer side. */
const MAX_PIXELS = 120_000_000
const MAX_SIDE = 20_000

export type AddImageResult = { ok: true; imageFile: ImageFile } | { ok: false; reason: 'not-a-picture' | 'too-large' }

/** Keeps a picture's file; it can be used in this tab at once. Of a vector drawing, a picture of it is kept. */
export async function addImageFile(chosen: File): Promise<AddImageResult> {
  if (chosen.size > MAX_BYTES) return { ok: false, reason: 'too-large' }
  const file = chosen.type === SVG_TYPE ? await drawnSvg(chosen) : chosen
  if (!file) return { ok: false, reason: 'not-a-picture' }
  // Looked at before it is decoded: a small file can hold a picture that no memory has room for.
  const size = imageSize(new Uint8Array(await file.slice(0, IMAGE_HEADER_BYTES).arrayBuffer()))
  if (size && (Math.max(size.width, size.height) > MAX_SIDE || size.width * size.height > MAX_PIXELS))
    return { ok: false, reason: 'too-large' }
  const bitmap = (IMAGE_TYPES as readonly string[]).includes(file.type)
    ? await createImageBitmap(file).catch(nullOnError('opening a picture'))
    : null
  if (!bitmap) return { ok: false, reason: 'not-a-picture' }
  const { width, height } = bitmap
  bitmap.close()
  const name = file.name.replace(/\.[^.]+$/, '') || file.name
  const checked = readRecord('imageFile', {
    ...newRecord(nowStamp()),
    id: newId<ImageFileId>(),
    name,
    fileName: file.name.slice(0, 1000),
    sizeBytes: file.size,
    width,
    height,
  })
  if (!checked.ok) return { ok: false, reason: 'not-a-picture' }
  await keepRecordWithFile(database().imageFiles, checked.record, {
    owner: checked.record.id,
    kind: 'kept',
    blob: file,
  })
  holdFile(checked.record.id, file)
  return { ok: true, imageFile: checked.record }
}

/** Records of pictures by id; those that are gone are left out. */
export async function keptImages(ids: readonly ImageFileId[]): Promise<ImageFile[]> {
  return readAll(
    'imageFile',
    (await database().imageFiles.bulkGet([...ids])).filter((r) => r !== undefined),
  )
}
