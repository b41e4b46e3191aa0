import { readRecord, type RecordKind, type RecordOf } from '@/core/model/migrate'

/**
 * Stored records brought up to date. What cannot be read, being damaged or of a newer version, is left out; it stays
 * stored.
 */
export function readAll<K extends RecordKind>(kind: K, raw: readonly unknown[]): RecordOf<K>[] {
  return raw.flatMap((r) => {
    const read = readRecord(kind, r)
    return read.ok ? [read.record] : []
  })
}
