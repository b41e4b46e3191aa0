import type { Table } from 'dexie'
import { freeName } from '@/core/interchange/freeName'
import type { RecordOf } from '@/core/model/migrate'
import { newRecord } from '@/core/model/record'
import { nowStamp } from './clock'
import { readAll } from './readAll'
import { tableOf } from './tableOf'

/** What is kept for next time besides setups, which are in store/setups. */
export type RackKind = 'layout' | 'brand' | 'outlet' | 'recipe'

type Stamps = 'schemaVersion' | 'createdAt' | 'updatedAt' | 'deletedAt'
export type Unstamped<K extends RackKind> = Omit<RecordOf<K>, 'id' | Stamps>

/**
 * Every record of a kind that is not in the bin and belongs to no highlight, by name. What cannot be read is left
 * out, not lost.
 */
export async function kept<K extends RackKind>(kind: K): Promise<RecordOf<K>[]> {
  const all = await tableOf(kind)
    .filter((r) => !r.deletedAt && (!('ownedBy' in r) || r.ownedBy === null))
    .toArray()
  return readAll(kind, all).sort((a, b) => a.name.localeCompare(b.name))
}

/** Keeps a new record under its name, with a number where that is taken. */
export async function keep<K extends RackKind>(kind: K, content: Unstamped<K>): Promise<RecordOf<K>> {
  const there = await kept(kind)
  const record = {
    ...content,
    ...newRecord(nowStamp()),
    id: crypto.randomUUID(),
    name: freeName(
      content.name,
      there.map((r) => r.name),
    ),
  } as unknown as RecordOf<K>
  await tableOf(kind).add(record)
  return record
}

export async function changeKept<K extends RackKind>(
  kind: K,
  id: string,
  change: Partial<Unstamped<K>>,
): Promise<void> {
  const table = tableOf(kind) as unknown as Table<Record<string, unknown>, string>
  await table.update(id, { ...change, updatedAt: nowStamp() })
}

export async function duplicateKept<K extends RackKind>(kind: K, record: RecordOf<K>): Promise<RecordOf<K>> {
  const { name } = record
  return keep(kind, { ...record, name: `${name.slice(0, 190)} copy` } as Unstamped<K>)
}

/** Puts a record into the bin, or takes it out again. Highlights keep what they took from it. */
export async function binKept(kind: RackKind, id: string, deleted: boolean): Promise<void> {
  const table = tableOf(kind) as unknown as Table<Record<string, unknown>, string>
  await table.update(id, { deletedAt: deleted ? nowStamp() : null })
}
