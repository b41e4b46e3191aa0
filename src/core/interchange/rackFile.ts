import { z } from 'zod'
import { panelsOf } from '../layout/tree'
import { DEFAULT_FONT, SHIPPED_FONTS } from '../model/fonts'
import { FONT_TYPES } from '../model/fontFile'
import { IMAGE_TYPES } from '../model/imageFile'
import { schemaOf, upgraded, type RecordOf } from '../model/migrate'
import { STANDARD_ROLES } from '../model/region'
import { readEnvelope } from './envelope'
import { repair } from './repair'

/**
 * What files carry from one rack to another, in the order in which it has to come in: later kinds refer to earlier
 * ones.
 */
export const RACK_KINDS = ['imageFile', 'fontFile', 'setup', 'layout', 'brand', 'outlet', 'recipe'] as const
export type FiledKind = (typeof RACK_KINDS)[number]

/** Larger files are not of a rack. */
export const MAX_RACK_FILE_BYTES = 64_000_000

const MAX_RECORDS = 500

const list = z.array(z.unknown()).max(MAX_RECORDS).default([])
const bytes = z.record(
  z.string().max(80),
  z.object({ type: z.enum([...IMAGE_TYPES, ...FONT_TYPES]), base64: z.base64().max(MAX_RACK_FILE_BYTES) }),
)

/**
 * A `.brimble.json` file as written; each record in it is of the version that it says. Files of setups alone are the
 * older kind.
 */
const rackFile = z.object({
  brimble: z.enum(['rack', 'setups']),
  version: z.literal(1),
  imageFiles: list,
  fontFiles: list,
  setups: list,
  layouts: list,
  brands: list,
  outlets: list,
  recipes: list,
  bytes: bytes.default({}),
})

const LISTS = {
  imageFile: 'imageFiles',
  fontFile: 'fontFiles',
  setup: 'setups',
  layout: 'layouts',
  brand: 'brands',
  outlet: 'outlets',
  recipe: 'recipes',
} as const satisfies Record<FiledKind, keyof z.infer<typeof rackFile>>

export type RackBytes = z.infer<typeof bytes>

/** Records by kind, and of pictures and fonts the bytes by id. */
export interface Filed {
  records: { [K in FiledKind]: RecordOf<K>[] }
  bytes: RackBytes
}

export const NOTHING_FILED: Filed = {
  records: { imageFile: [], fontFile: [], setup: [], layout: [], brand: [], outlet: [], recipe: [] },
  bytes: {},
}

export function writeRackFile({ records, bytes: pictures }: Filed): string {
  const lists = RACK_KINDS.filter((kind) => records[kind].length > 0).map((kind) => [
    LISTS[kind],
    records[kind].map(withoutOwner),
  ])
  return `${JSON.stringify({ brimble: 'rack', version: 1, ...Object.fromEntries(lists), ...(Object.keys(pictures).length > 0 && { bytes: pictures }) }, null, 2)}\n`
}

/** Whose working copy a record was is nobody else's business. */
function withoutOwner<T extends object>(record: T): T {
  const plain: Record<string, unknown> = { ...record, deletedAt: null }
  if ('ownedBy' in record) Object.assign(plain, { ownedBy: null, basedOn: null })
  return plain as T
}

/** One record of a file that was changed to fit, or left out. */
export interface Remark {
  kind: FiledKind
  name: string
  /**
   * *refused*: it was left out; *repaired*: it is there, with these changes; *note*: it is there as it is, but look.
   */
  what: 'refused' | 'repaired' | 'note'
  reasons: string[]
}

export type RackFileResult =
  | { ok: true; filed: Filed; remarks: Remark[] }
  | { ok: false; reason: 'too-large' | 'not-json' | 'not-a-rack' | 'newer-version'; detail: string }

/**
 * Reads a file that {@link writeRackFile} wrote, here or elsewhere. Numbers beyond their range are put right, fonts
 * that are not there replaced, roles that nobody knows told of; what cannot be put right is left out. All of it is in
 * `remarks`. `knownFonts`: families that are there besides those that ship.
 */
export function readRackFile(text: string, knownFonts: readonly string[] = []): RackFileResult {
  if (text.length > MAX_RACK_FILE_BYTES) return { ok: false, reason: 'too-large', detail: '' }
  const outside = readEnvelope(text, 'rack', 1)
  if (!outside.ok) return outside
  const file = rackFile.safeParse(outside.raw)
  if (!file.success || RACK_KINDS.every((kind) => file.data[LISTS[kind]].length === 0))
    return { ok: false, reason: 'not-a-rack', detail: '' }
  const remarks: Remark[] = []
  const read = <K extends FiledKind>(kind: K): RecordOf<K>[] =>
    file.data[LISTS[kind]].flatMap((record, n) => readOne(kind, record, n, remarks))
  const withBytes = <R extends { id: string }>(records: R[]) => records.filter((r) => file.data.bytes[r.id])
  const fontFiles = withBytes(read('fontFile'))
  const families = [...SHIPPED_FONTS, ...knownFonts, ...fontFiles.map((f) => f.name)]
  const filed: Filed = {
    records: {
      imageFile: withBytes(read('imageFile')),
      fontFile: fontFiles,
      setup: read('setup'),
      layout: read('layout'),
      brand: read('brand').map((b) => withKnownFonts(b, families, remarks)),
      outlet: read('outlet'),
      recipe: read('recipe'),
    },
    bytes: file.data.bytes,
  }
  for (const made of filed.records.layout) tellUnknownRoles(made, filed.records.setup, remarks)
  return { ok: true, filed, remarks }
}

function readOne<K extends FiledKind>(kind: K, raw: unknown, n: number, remarks: Remark[]): RecordOf<K>[] {
  const name = nameOf(raw) ?? `number ${n + 1}`
  const record = upgraded(kind, raw)
  if (!record.ok) {
    remarks.push({ kind, name, what: 'refused', reasons: record.problems })
    return []
  }
  const result = repair(schemaOf(kind), record.record)
  if (!result.ok) {
    remarks.push({ kind, name, what: 'refused', reasons: result.problems })
    return []
  }
  if (result.repairs.length > 0) remarks.push({ kind, name, what: 'repaired', reasons: result.repairs })
  return [withoutOwner(result.value as RecordOf<K>)]
}

function nameOf(raw: unknown): string | null {
  const name = (raw as { name?: unknown } | null)?.name
  return typeof name === 'string' && name.trim() !== '' ? name.slice(0, 80) : null
}

function withKnownFonts(brand: RecordOf<'brand'>, families: readonly string[], remarks: Remark[]): RecordOf<'brand'> {
  const missing = [...new Set(Object.values(brand.fonts))].filter((f) => !families.includes(f))
  if (missing.length === 0) return brand
  const known = (font: string) => (missing.includes(font) ? DEFAULT_FONT : font)
  remarks.push({
    kind: 'brand',
    name: brand.name,
    what: 'repaired',
    reasons: missing.map((font) => `the font “${font}” is not here, ${DEFAULT_FONT} takes its place`),
  })
  return { ...brand, fonts: { title: known(brand.fonts.title), captions: known(brand.fonts.captions) } }
}

function tellUnknownRoles(
  { name, arrangement }: RecordOf<'layout'>,
  setups: readonly RecordOf<'setup'>[],
  remarks: Remark[],
): void {
  const known = new Set<string>([...STANDARD_ROLES, ...setups.flatMap((s) => s.regions.map((r) => r.role))])
  const unknown = [...new Set(panelsOf(arrangement).map((p) => p.role))].filter((role) => !known.has(role))
  if (unknown.length > 0)
    remarks.push({
      kind: 'layout',
      name,
      what: 'note',
      reasons: unknown.map((role) => `it shows “${role}”, for which a setup needs a region of that role`),
    })
}
