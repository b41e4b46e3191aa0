import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import type { JoinTiming } from '../model/highlight'
import type { RecordingId } from '../model/ids'
import { join as joinSchema, joinLength } from '../model/join'
import { passage as passageSchema, type Passage } from '../model/passage'
import {
  keptStretches,
  onScreenAt,
  outputLength,
  passageLength,
  recordingMicrosAt,
  timeMapOf,
  toOutputMicros,
  toRecordingMicros,
} from './timeMap'

function passage(
  inMicros: number,
  outMicros: number,
  more: { speedPercent?: number; recordingId?: string; strikes?: [number, number][]; join?: object } = {},
): Passage {
  const { speedPercent = 100, recordingId = 'a', strikes = [], join = { kind: 'cut' } } = more
  return passageSchema.parse({
    id: `${recordingId}${inMicros}`,
    recordingId,
    inMicros,
    outMicros,
    speedPercent,
    setupId: 's',
    layoutId: 'l',
    strikes: strikes.map(([fromMicros, toMicros]) => ({ fromMicros, toMicros })),
    join,
  })
}

const mapOf = (passages: Passage[], joinTiming: JoinTiming = 'hold') => timeMapOf({ passages, joinTiming })
const push = (lengthMicros: number) => joinSchema.parse({ kind: 'push', direction: 'up', lengthMicros, easing: 'even' })

describe('time map', () => {
  it('lays passages end to end, each as long as its speed makes it', () => {
    const map = mapOf([
      passage(0, 2_000_000),
      passage(5_000_000, 8_000_000, { speedPercent: 150 }),
      passage(1_000_000, 2_000_000, { speedPercent: 50 }),
    ])
    expect(map.passages.map((p) => [p.startMicros, p.endMicros])).toEqual([
      [0, 2_000_000],
      [2_000_000, 4_000_000],
      [4_000_000, 6_000_000],
    ])
    expect(map.lengthMicros).toBe(6_000_000)
  })

  it('leaves out what is struck out, and what follows moves up', () => {
    const struck = passage(1_000_000, 5_000_000, {
      strikes: [
        [0, 1_500_000],
        [2_000_000, 3_000_000],
        [4_900_000, 9_000_000],
      ],
    })
    expect(keptStretches(struck)).toEqual([
      { inMicros: 1_500_000, outMicros: 2_000_000 },
      { inMicros: 3_000_000, outMicros: 4_900_000 },
    ])
    expect(passageLength(struck)).toBe(2_400_000)
    const map = mapOf([struck])
    expect(toRecordingMicros(map, 499_999)?.recordingMicros).toBe(1_999_999)
    expect(toRecordingMicros(map, 500_000)?.recordingMicros).toBe(3_000_000)
    expect(toOutputMicros(map, 'a' as RecordingId, 2_500_000)).toEqual([])
  })

  it('knows where a moment appears: never, once, or more often', () => {
    const map = mapOf([passage(0, 2_000_000), passage(1_000_000, 3_000_000, { speedPercent: 200 })])
    expect(toOutputMicros(map, 'a' as RecordingId, 500_000)).toEqual([500_000])
    expect(toOutputMicros(map, 'a' as RecordingId, 1_500_000)).toEqual([1_500_000, 2_250_000])
    expect(toOutputMicros(map, 'a' as RecordingId, 3_000_000)).toEqual([])
    expect(toOutputMicros(map, 'b' as RecordingId, 500_000)).toEqual([])
  })

  it('a join that holds leaves the length alone and plays both sides beyond their cuts', () => {
    const map = mapOf([passage(0, 2_000_000, { join: push(400_000) }), passage(7_000_000, 9_000_000)])
    expect(map.lengthMicros).toBe(4_000_000)
    const shown = onScreenAt(map, 2_100_000)
    if (shown?.kind !== 'join') throw new Error('no join')
    expect(shown.progress).toBeCloseTo(0.75, 6)
    expect(shown.from.recordingMicros).toBe(2_100_000)
    expect(shown.to.recordingMicros).toBe(7_100_000)
    const before = onScreenAt(map, 1_900_000)
    if (before?.kind !== 'join') throw new Error('no join')
    expect(before.to.recordingMicros).toBe(6_900_000)
    expect(onScreenAt(map, 1_799_999)?.kind).toBe('one')
    expect(onScreenAt(map, 2_200_000)?.kind).toBe('one')
  })

  it('a join that overlaps is shared: what follows comes earlier by its length, and nothing beyond the cuts is needed', () => {
    const map = mapOf([passage(0, 2_000_000, { join: push(400_000) }), passage(7_000_000, 9_000_000)], 'overlap')
    expect(map.lengthMicros).toBe(3_600_000)
    const shown = onScreenAt(map, 1_600_000)
    if (shown?.kind !== 'join') throw new Error('no join')
    expect(shown.from.recordingMicros).toBe(1_600_000)
    expect(shown.to.recordingMicros).toBe(7_000_000)
  })

  it(`maps every output time to a recording time and back, through cuts, speeds, strikes, joins and recordings; lengths add up (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 300; round++) {
      const timing = random.pick<JoinTiming>(['hold', 'overlap'])
      const passages = Array.from({ length: random.integer(1, 8) }, () => {
        const start = random.integer(0, 60_000_000)
        const end = start + random.integer(40_000, 20_000_000)
        const strikes: [number, number][] = []
        for (let at = start + 1; at < end - 10_000 && strikes.length < 4;) {
          const from = at + random.integer(0, Math.floor((end - at) / 2))
          const to = from + random.integer(1, Math.max(1, Math.floor((end - from) / 2)))
          if (to < end - 5_000) strikes.push([from, to])
          at = to + 1_000
        }
        const join = random.next() < 0.5 ? { kind: 'cut' } : push(random.integer(0, 900_000))
        return passage(start, end, {
          speedPercent: random.pick([25, 50, 80, 100, 150, 400]),
          recordingId: random.pick(['a', 'b']),
          strikes,
          join,
        })
      })
      const map = mapOf(passages, timing)
      const shared = map.joins.reduce((sum, j) => sum + j.toMicros - j.fromMicros, 0)
      expect(outputLength({ passages, joinTiming: timing })).toBe(
        passages.reduce((sum, p) => sum + passageLength(p), 0) - (timing === 'overlap' ? shared : 0),
      )
      for (const p of passages) {
        const kept = keptStretches(p).reduce((sum, s) => sum + s.outMicros - s.inMicros, 0)
        expect(
          Math.abs(passageLength(p) - (kept * 100) / p.speedPercent),
          'no rounding adds up over strikes',
        ).toBeLessThanOrEqual(0.5)
      }
      for (const j of map.joins) expect(j.toMicros - j.fromMicros).toBeLessThanOrEqual(joinLength(j.join))
      for (let i = 0; i < 20; i++) {
        const t = random.integer(0, map.lengthMicros - 1)
        const at = toRecordingMicros(map, t)
        if (!at) throw new Error(`nothing plays at ${t}`)
        expect(at.recordingMicros).toBeGreaterThanOrEqual(at.passage.inMicros)
        expect(at.recordingMicros).toBeLessThanOrEqual(at.passage.outMicros)
        const step = Math.ceil(100 / at.passage.speedPercent) + 1
        const back = [at.recordingMicros, at.recordingMicros - 1].flatMap((r) =>
          toOutputMicros(map, at.passage.recordingId, r),
        )
        expect(Math.min(...back.map((b) => Math.abs(b - t)))).toBeLessThanOrEqual(
          step + Math.ceil(100 / at.passage.speedPercent),
        )
        expect(onScreenAt(map, t)).not.toBeNull()
      }
      expect(toRecordingMicros(map, map.lengthMicros)).toBeNull()
      expect(toRecordingMicros(map, -1)).toBeNull()
    }
  })

  it('time in a passage never runs backwards, and goes on beyond its cuts', () => {
    const [placed] = mapOf([
      passage(3_000_000, 5_000_000, { speedPercent: 50, strikes: [[3_500_000, 4_000_000]] }),
    ]).passages
    if (!placed) throw new Error('no passage')
    expect(recordingMicrosAt(placed, -200_000)).toBe(2_900_000)
    expect(recordingMicrosAt(placed, placed.endMicros + 200_000)).toBe(5_100_000)
    let last = -Infinity
    for (let t = -500_000; t < 4_000_000; t += 7_001) {
      const at = recordingMicrosAt(placed, t)
      expect(at).toBeGreaterThanOrEqual(last)
      last = at
    }
  })
})
