import { describe, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { currentVersion, readRecord } from './migrate'
import { passage } from './passage'
import { title } from './record'
import { region } from './region'

describe('reading records', () => {
  it('takes what was written, as kept in tests/fixtures for version 1', async () => {
    const { default: stored } = await import('../../../tests/fixtures/highlight.v1.json')
    const result = readRecord('highlight', stored)
    if (!result.ok) throw new Error(result.problems.join())
    expect(result.record).toMatchObject({
      name: 'Last gate, no lift',
      passages: [{ inMicros: 10_500_000, speedPercent: 100 }],
    })
  })

  it('refuses what a newer Brimble wrote, without touching it', () => {
    const { highlight } = sampleEdit()
    const raw = { ...highlight, schemaVersion: currentVersion('highlight') + 1 }
    const frozen = Object.freeze(raw)
    expect(readRecord('highlight', frozen)).toMatchObject({ ok: false, reason: 'newer-version' })
  })

  it.each([null, 7, 'x', {}, { schemaVersion: 0 }, { schemaVersion: '1' }, { schemaVersion: 1 }])(
    'refuses %j as no record',
    (raw) => {
      expect(readRecord('setup', raw)).toMatchObject({ ok: false, reason: 'not-a-record' })
    },
  )

  it('names the field that is wrong', () => {
    const { highlight } = sampleEdit()
    const result = readRecord('highlight', { ...highlight, shapes: [{ id: 'odd', width: 625, height: 540 }] })
    expect(result).toMatchObject({ ok: false, problems: [expect.stringContaining('shapes.0.width')] })
  })
})

describe('schemas', () => {
  it('keep out points after in points and regions inside the frame', () => {
    const good = sampleEdit().highlight.passages[0]
    expect(passage.safeParse({ ...good, outMicros: good?.inMicros }).success).toBe(false)
    const bounds = (x: number, width: number) =>
      region.safeParse({ id: 'r', role: 'face', name: 'F', bounds: { x, y: 0, width, height: 1 } }).success
    expect(bounds(0.5, 0.5)).toBe(true)
    expect(bounds(0.5, 0.6)).toBe(false)
    expect(bounds(0.5, 0)).toBe(false)
    expect(bounds(NaN, 0.1)).toBe(false)
  })

  it('take a name as one trimmed line and never more', () => {
    expect(title.parse('  Last\n gate  ')).toBe('Last gate')
    expect(title.parse('x'.repeat(500))).toHaveLength(200)
    expect(title.safeParse(' \n ').success).toBe(false)
  })
})
