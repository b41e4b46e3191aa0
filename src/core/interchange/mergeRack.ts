import { freeName } from './freeName'
import { NOTHING_FILED, RACK_KINDS, type Filed, type FiledKind } from './rackFile'
import type { RecordOf } from '../model/migrate'

export interface Merge {
  /**
   * To be stored: new ones as they are; one whose id is taken by another gets an id of its own, one whose name is
   * taken a number.
   */
  add: Filed
  /** Names of those that are there already, just the same. */
  same: string[]
}

/**
 * How records from a file come to those that are there, without anything being written over. What refers to one that
 * got another id follows it. `taken`: ids that are not free although nothing of them is there, such as those of the
 * bin.
 */
export function mergeRack(
  there: Filed['records'],
  incoming: Filed,
  newId: () => string,
  taken: ReadonlySet<string> = new Set(),
): Merge {
  const merge: Merge = { add: { records: { ...NOTHING_FILED.records }, bytes: {} }, same: [] }
  const ids = new Map<string, string>()
  for (const kind of RACK_KINDS) mergeKind(kind, there[kind], incoming.records[kind], ids, { newId, taken }, merge)
  for (const [id, bytes] of Object.entries(incoming.bytes)) {
    const to = ids.get(id) ?? id
    if ([...merge.add.records.imageFile, ...merge.add.records.fontFile].some((f) => f.id === to))
      merge.add.bytes[to] = bytes
  }
  return merge
}

function mergeKind<K extends FiledKind>(
  kind: K,
  there: readonly RecordOf<K>[],
  incoming: readonly RecordOf<K>[],
  ids: Map<string, string>,
  { newId, taken }: { newId: () => string; taken: ReadonlySet<string> },
  merge: Merge,
): void {
  const add: RecordOf<K>[] = []
  for (const filed of incoming) {
    const record = referring(filed, ids)
    const all = [...there, ...add]
    const same = all.find((r) => r.id === (ids.get(record.id) ?? record.id))
    if (same && contentOf(same) === contentOf(record)) {
      merge.same.push(record.name)
      continue
    }
    const id = same || taken.has(record.id) ? newId() : record.id
    ids.set(record.id, id)
    add.push({
      ...record,
      id,
      name: freeName(
        record.name,
        all.map((r) => r.name),
      ),
    } as RecordOf<K>)
  }
  Object.assign(merge.add.records, { [kind]: add })
}

/** Fields that name another record. */
const REFERENCES: ReadonlySet<string> = new Set(['setupId', 'layoutId', 'brandId', 'imageFileId', 'logo', 'endCard'])

/** A record with the new ids of what it refers to. */
function referring<T>(record: T, ids: ReadonlyMap<string, string>): T {
  if (ids.size === 0) return record
  const through = (value: unknown, key: string): unknown => {
    if (typeof value === 'string') return REFERENCES.has(key) ? (ids.get(value) ?? value) : value
    if (Array.isArray(value)) return value.map((item) => through(item, key))
    return value !== null && typeof value === 'object'
      ? Object.fromEntries(Object.entries(value).map(([k, v]) => [k, through(v, k)]))
      : value
  }
  return through(record, '') as T
}

/** What does not make two records different: when they were made, whose they are, what was measured of them. */
const INCIDENTAL: ReadonlySet<string> = new Set([
  'id',
  'schemaVersion',
  'createdAt',
  'updatedAt',
  'deletedAt',
  'ownedBy',
  'basedOn',
  'fingerprint',
])

const contentOf = (record: object) =>
  JSON.stringify(
    Object.entries(record)
      .filter(([key]) => !INCIDENTAL.has(key))
      .sort(([a], [b]) => a.localeCompare(b)),
  )
