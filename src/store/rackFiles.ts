import { mergeRack, type Merge } from '@/core/interchange/mergeRack'
import { NOTHING_FILED, RACK_KINDS, type Filed, type FiledKind, type RackBytes } from '@/core/interchange/rackFile'
import type { FontFile } from '@/core/model/fontFile'
import type { FontFileId, ImageFileId } from '@/core/model/ids'
import type { ImageFile } from '@/core/model/imageFile'
import { picturesOfLayouts } from '@/core/model/layout'
import type { RecordOf } from '@/core/model/migrate'
import { picturesOfMarks } from '@/core/model/pictureMark'
import type { Table } from 'dexie'
import { newId } from '@/core/model/ids'
import { nowStamp } from './clock'
import { database } from './database'
import { keptFonts } from './fontFiles'
import { storedFile } from './recordings'
import { tableOf } from './tableOf'

/**
 * Adds what a file holds to what is there, all or nothing; nothing is written over, and what lies in the bin keeps
 * its id.
 */
export async function addFiled(incoming: Filed): Promise<Merge> {
  return database().transaction(
    'rw',
    [...RACK_KINDS.map((k) => tableOf(k) as unknown as Table), database().files],
    async () => {
      const there = { ...NOTHING_FILED.records }
      const taken = new Set<string>()
      for (const kind of RACK_KINDS) {
        const all = await (tableOf(kind) as unknown as Table<Kept>).toArray()
        all.forEach(({ id }) => taken.add(id))
        Object.assign(there, { [kind]: all.filter((r) => !r.deletedAt && !r.ownedBy) })
      }
      const made = mergeRack(there, incoming, () => newId(), taken)
      for (const kind of RACK_KINDS)
        await (tableOf(kind) as unknown as Table).bulkAdd(
          made.add.records[kind].map((r) => ({ ...r, updatedAt: nowStamp() })),
        )
      await database().files.bulkPut(
        Object.entries(made.add.bytes).map(([id, bytes]) => ({
          owner: id as ImageFileId | FontFileId,
          kind: 'kept',
          blob: blobOf(bytes),
        })),
      )
      return made
    },
  )
}

const blobOf = ({ type, base64 }: RackBytes[string]) =>
  new Blob([Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))], { type })

type Kept = { id: string; deletedAt: string | null; ownedBy?: string | null }

/**
 * Records with all that they refer to: what a recipe binds, and the bytes of every picture and of fonts that do not
 * ship.
 */
export async function toFile(wanted: Partial<Filed['records']>): Promise<Filed> {
  const records = { ...NOTHING_FILED.records, ...wanted }
  const more = async <K extends FiledKind>(kind: K, ids: readonly (string | null)[]): Promise<RecordOf<K>[]> => {
    const known = records[kind] as unknown as readonly RecordOf<K>[]
    const missing = [...new Set(ids)].filter((id) => id !== null && known.every((r) => r.id !== id))
    const found = await tableOf(kind).bulkGet(missing as string[])
    return [...known, ...found.flatMap((r) => (r ? [r] : []))]
  }
  // What a record refers to comes along.
  records.setup = await more(
    'setup',
    records.recipe.map((r) => r.setupId),
  )
  records.layout = await more(
    'layout',
    records.recipe.map((r) => r.layoutId),
  )
  records.brand = await more(
    'brand',
    records.recipe.map((r) => r.brandId),
  )
  records.imageFile = await more('imageFile', [
    ...picturesOfLayouts(records.layout),
    ...records.recipe.flatMap((r) => picturesOfMarks(r.marks ?? [])),
    ...records.brand.flatMap((b) => [b.logo, b.endCard]),
  ])
  const families = new Set(records.brand.flatMap((b) => Object.values(b.fonts)))
  for (const { captions, marks } of records.recipe)
    for (const made of [captions, ...(marks ?? [])]) if (made && 'style' in made) families.add(made.style.font)
  records.fontFile = await more(
    'fontFile',
    (await keptFonts()).filter((f) => families.has(f.name)).map((f) => f.id),
  )
  return { records, bytes: await bytesOf([...records.imageFile, ...records.fontFile]) }
}

async function bytesOf(files: readonly (ImageFile | FontFile)[]): Promise<RackBytes> {
  const bytes: RackBytes = {}
  for (const { id } of files) {
    const stored = await storedFile(id)
    if (stored.ok)
      bytes[id] = { type: stored.file.type as RackBytes[string]['type'], base64: await base64Of(stored.file) }
  }
  return bytes
}

function base64Of(file: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader()
    reader.onload = () => resolve(String(reader.result).replace(/^[^,]*,/, ''))
    reader.onerror = () => reject(reader.error ?? new Error('cannot be read'))
    reader.readAsDataURL(file)
  })
}
