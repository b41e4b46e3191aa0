import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../../tests/support/seeded'
import { passage as passageSchema } from '@/core/model/passage'
import { timeMapOf, type TimeMap } from '@/core/time/timeMap'
import { layOutSheet, outputAt, ROW_HEIGHT, topOfOutput, topOfRecording } from './sheetLayout'

const SECOND = 1_000_000
const passage = (id: string, inMicros: number, outMicros: number, more: object = {}) =>
  passageSchema.parse({ id, recordingId: 'r', inMicros, outMicros, setupId: 's', layoutId: 'l', ...more })
const mapOf = (...passages: ReturnType<typeof passage>[]): TimeMap => timeMapOf({ passages, joinTiming: 'hold' })

describe('the Sheet', () => {
  it('is headers, rows, strikes and joins from top to bottom without a gap', () => {
    const map = mapOf(
      passage('a', 0, 2.5 * SECOND),
      passage('b', 10 * SECOND, 14 * SECOND, { strikes: [{ fromMicros: 11 * SECOND, toMicros: 12 * SECOND }] }),
    )
    const { items, height } = layOutSheet(map, SECOND, null)
    expect(items.map((i) => i.kind)).toEqual([
      'header',
      'row',
      'row',
      'row',
      'foot',
      'join',
      'header',
      'row',
      'strike',
      'row',
      'row',
      'foot',
    ])
    let top = 0
    for (const item of items) {
      expect(item.top).toBeCloseTo(top, 6)
      top += item.height
    }
    expect(height).toBeCloseTo(top, 6)
    expect(items[3]?.height).toBeCloseTo(ROW_HEIGHT / 2, 6)
  })

  it('opens a passage beyond its cuts without moving what is shown of it apart', () => {
    const map = mapOf(passage('a', 10 * SECOND, 12 * SECOND))
    const [a] = map.passages
    if (!a) throw new Error('no passage')
    const shut = layOutSheet(map, SECOND, null)
    const open = layOutSheet(map, SECOND, { passageId: a.passage.id, fromMicros: 7 * SECOND, toMicros: 15 * SECOND })
    expect(open.height - shut.height).toBeCloseTo(6 * ROW_HEIGHT, 6)
    expect(
      topOfRecording(open, a.passage.id, 12 * SECOND) - topOfRecording(open, a.passage.id, 10 * SECOND),
    ).toBeCloseTo(2 * ROW_HEIGHT, 6)
    expect(outputAt(open, topOfRecording(open, a.passage.id, 8 * SECOND)), 'beyond the cut counts as the cut').toBe(0)
  })

  it(`leads from every output time to a place and back, at every scale (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 60; round++) {
      const map = mapOf(
        ...Array.from({ length: random.integer(1, 5) }, (_, i) => {
          const start = random.integer(0, 50) * SECOND
          const strikes = random.next() < 0.5 ? [{ fromMicros: start + 700_000, toMicros: start + 1_300_000 }] : []
          return passage(`p${i}`, start, start + random.integer(2, 9) * SECOND, {
            speedPercent: random.pick([50, 100, 200]),
            strikes,
          })
        }),
      )
      const layout = layOutSheet(map, random.pick([16_667, 100_000, SECOND, 10 * SECOND]), null)
      for (let i = 0; i < 30; i++) {
        const t = random.integer(0, map.lengthMicros - 1)
        expect(Math.abs(outputAt(layout, topOfOutput(layout, map, t)) - t)).toBeLessThanOrEqual(5)
      }
      expect(topOfOutput(layout, map, map.lengthMicros)).toBeLessThanOrEqual(layout.height)
    }
  })
})
