import { describe, expect, it } from 'vitest'
import { spanKey, spansOf } from './spans'
import type { ShelfDay } from './useShelf'

const day = (iso: string, ...yields: number[]) =>
  ({
    key: iso.slice(0, 10),
    iso,
    rows: yields.map((n) => ({ highlights: Array.from({ length: n }) })),
  }) as unknown as ShelfDay

describe('what recordings have yielded over time', () => {
  const days = [
    day('2026-11-24T18:00:00.000Z', 2, 0),
    day('2026-11-21T12:00:00.000Z', 1),
    day('2026-09-30T12:00:00.000Z', 4),
  ]

  it('is counted by day, with the quiet days between', () => {
    const spans = spansOf(days.slice(0, 2), 'day')
    expect(spans.map((s) => [s.key, s.recordings, s.highlights])).toEqual([
      ['2026-11-21', 1, 1],
      ['2026-11-22', 0, 0],
      ['2026-11-23', 0, 0],
      ['2026-11-24', 2, 2],
    ])
  })

  it('is counted by month, over the end of a short one', () => {
    expect(spansOf(days, 'month').map((s) => [s.key, s.recordings, s.highlights])).toEqual([
      ['2026-09', 1, 4],
      ['2026-10', 0, 0],
      ['2026-11', 3, 3],
    ])
    expect(
      spansOf([day('2026-01-31T12:00:00.000Z', 0), day('2026-03-31T12:00:00.000Z', 0)], 'month').map((s) => s.key),
    ).toEqual(['2026-01', '2026-02', '2026-03'])
  })

  it('is nothing for an empty Shelf, and at most sixty days', () => {
    expect(spansOf([], 'day')).toEqual([])
    expect(spansOf([day('2025-01-01T12:00:00.000Z', 1), ...days], 'day')).toHaveLength(60)
    expect(spanKey('2026-11-24T12:00:00.000Z', 'month')).toBe('2026-11')
  })
})
