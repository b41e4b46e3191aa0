import { createHash } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { compose } from '@/core/compose/compose'
import { readEdit } from '@/core/interchange/readEdit'
import { readRecord, type RecordKind } from '@/core/model/migrate'
import { timeMapOf } from '@/core/time/timeMap'
import edits from '../fixtures/edits.v1.json'
import records from '../fixtures/records.v1.json'

/**
 * What was saved by the version of 30 November 2026: seeded values of every kind of record, and edits with what was
 * drawn of them.
 */
describe('what an older version has saved', () => {
  it.each(Object.entries(records) as [RecordKind, unknown[]][])('%s: is read as it was written', (kind, rows) => {
    expect(rows.length).toBeGreaterThan(1)
    for (const row of rows) expect(readRecord(kind, row)).toEqual({ ok: true, record: row })
  })

  it.each(edits.map(({ edit, pictures }, n) => ({ n, edit: edit as unknown, pictures })))(
    'edit $n: the same pictures are composed',
    ({ edit, pictures }) => {
      const read = readEdit(edit)
      if (!read.ok) throw new Error(read.problems.join())
      const map = timeMapOf(read.edit.highlight)
      expect(pictures.length).toBeGreaterThan(2)
      for (const { shape, micros, sha256 } of pictures) {
        const found = read.edit.highlight.shapes.find((s) => s.id === shape)
        const composed = found && compose(read.edit, map, found, micros)
        expect(createHash('sha256').update(JSON.stringify(composed)).digest('hex'), `${shape} at ${micros}`).toBe(
          sha256,
        )
      }
    },
  )
})
