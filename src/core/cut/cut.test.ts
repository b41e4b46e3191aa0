import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import type { PassageId } from '../model/ids'
import { passage as passageSchema, type Passage } from '../model/passage'
import { frameAtMicros, frameStartMicros } from '../time/frameRate'
import { keptStretches, passageLength, timeMapOf } from '../time/timeMap'
import { findDeadAir, totalOf } from './deadAir'
import { shortHandles } from './handles'
import {
  mergeStrikes,
  onFrame,
  reorder,
  restore,
  slip,
  split,
  strikeOut,
  strikeOutput,
  trim,
  type Footage,
} from './passages'

const footage: Footage = { durationMicros: 60_000_000, video: { frameRate: { num: 60, den: 1 }, firstFrameMicros: 0 } }
const passage = (inMicros: number, outMicros: number, more: object = {}): Passage =>
  passageSchema.parse({
    id: `p${inMicros}`,
    recordingId: 'r',
    inMicros,
    outMicros,
    setupId: 's',
    layoutId: 'l',
    ...more,
  })
const strike = (fromMicros: number, toMicros: number) => ({ fromMicros, toMicros })
const onAFrame = (t: number) =>
  frameStartMicros(frameAtMicros(t, footage.video.frameRate), footage.video.frameRate) === t

describe('trimming and slipping', () => {
  it('lands on frames, keeps a frame, and stays inside the recording', () => {
    expect(trim(passage(1_000_000, 2_000_000), 'in', 1_507_000, footage).inMicros).toBe(1_500_000)
    expect(trim(passage(1_000_000, 2_000_000), 'in', 9_000_000, footage)).toMatchObject({
      inMicros: 2_000_000 - 16_667,
      outMicros: 2_000_000,
    })
    expect(trim(passage(1_000_000, 2_000_000), 'out', 99_000_000, footage).outMicros).toBe(60_000_000)
    expect(trim(passage(1_000_000, 2_000_000), 'out', 0, footage).outMicros).toBe(1_016_667)
  })

  it('slips content and strikes together, and stops at the ends', () => {
    const moved = slip(
      passage(10_000_000, 12_000_000, { strikes: [strike(10_500_000, 11_000_000)] }),
      5_000_000,
      footage,
    )
    expect(moved).toMatchObject({
      inMicros: 15_000_000,
      outMicros: 17_000_000,
      strikes: [strike(15_500_000, 16_000_000)],
    })
    expect(slip(passage(10_000_000, 12_000_000), 99_000_000, footage)).toMatchObject({
      inMicros: 58_000_000,
      outMicros: 60_000_000,
    })
    expect(slip(passage(10_000_000, 12_000_000), -99_000_000, footage)).toMatchObject({
      inMicros: 0,
      outMicros: 2_000_000,
    })
  })
})

describe('splitting, striking and restoring', () => {
  it('split leaves the length and what is shown alone', () => {
    const whole = passage(1_000_000, 5_000_000, { strikes: [strike(2_000_000, 3_000_000)] })
    const parts = split([whole], whole.id, 4_000_000, 'new' as PassageId, footage)
    expect(parts.map((p) => [p.inMicros, p.outMicros])).toEqual([
      [1_000_000, 4_000_000],
      [4_000_000, 5_000_000],
    ])
    expect(parts.reduce((sum, p) => sum + passageLength(p), 0)).toBe(passageLength(whole))
    expect(split([whole], whole.id, 1_000_000, 'new' as PassageId, footage)).toHaveLength(1)
    expect(split([whole], whole.id, 2_500_000, 'new' as PassageId, footage), 'inside what is struck out').toHaveLength(
      2,
    )
  })

  it('never strikes out everything of a passage', () => {
    const p = passage(1_000_000, 2_000_000)
    expect(strikeOut(p, strike(0, 3_000_000))).toBe(p)
  })

  it('strikes out a stretch of the output over several passages; what is wholly inside goes', () => {
    const map = timeMapOf({
      passages: [
        passage(0, 2_000_000),
        passage(10_000_000, 11_000_000),
        passage(20_000_000, 24_000_000, { speedPercent: 200 }),
      ],
      joinTiming: 'hold',
    })
    const struck = strikeOutput(map, 1_500_000, 4_000_000, () => footage)
    expect(struck.map((p) => p.id)).toEqual(['p0', 'p20000000'])
    expect(struck.map(passageLength)).toEqual([1_500_000, 1_000_000])
    expect(
      strikeOutput(map, 0, 5_000_000, () => footage),
      'the last one stays',
    ).toHaveLength(3)
  })

  it(`restoring undoes striking, whatever was struck before (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 500; round++) {
      let p = passage(0, 10_000_000)
      const seen = new Set<number>()
      for (let i = 0; i < 6; i++) {
        const from = random.integer(0, 99)
        const to = random.integer(from + 1, 100)
        const stretch = strike(from * 100_000, to * 100_000)
        const before = p
        if (random.next() < 0.7) {
          p = strikeOut(p, stretch)
          if (p !== before) for (let x = from; x < to; x++) seen.add(x)
        } else {
          p = restore(p, stretch)
          for (let x = from; x < to; x++) seen.delete(x)
        }
      }
      const kept = Array.from({ length: 100 }, (_, x) => x).filter((x) =>
        keptStretches(p).some((s) => x * 100_000 >= s.inMicros && (x + 1) * 100_000 <= s.outMicros),
      )
      expect(kept, 'against a plain list of tenths').toEqual(
        Array.from({ length: 100 }, (_, x) => x).filter((x) => !seen.has(x)),
      )
      expect(mergeStrikes(p.strikes), 'in order and never touching').toEqual(p.strikes)
    }
  })

  it('moves an item so that it ends where it was dropped', () => {
    expect(reorder(['a', 'b', 'c', 'd'], 0, 2)).toEqual(['b', 'c', 'a', 'd'])
    expect(reorder(['a', 'b', 'c', 'd'], 3, 0)).toEqual(['d', 'a', 'b', 'c'])
  })

  it('every cut lies on a frame of a recording that does not begin at 0', () => {
    const late: Footage = {
      durationMicros: 9_000_000,
      video: { frameRate: { num: 30000, den: 1001 }, firstFrameMicros: 40_000 },
    }
    for (const t of [100_000, 1_234_567, 8_000_001]) {
      const at = onFrame(late, t) - 40_000
      expect(frameStartMicros(frameAtMicros(at, late.video.frameRate), late.video.frameRate)).toBe(at)
    }
    expect(onAFrame(onFrame(footage, 1_234_567))).toBe(true)
  })
})

describe('dead air', () => {
  const settings = { leastMicros: 500_000, levelDb: -40, breathMicros: 100_000 }
  /** A row of levels: `[seconds, dB]` after one another, in steps of 10 ms. */
  const row = (...parts: [number, number][]) =>
    parts.flatMap(([seconds, db]) => Array.from({ length: Math.round(seconds * 100) }, () => db))

  it('is found at known places, with a breath left on either side', () => {
    const found = findDeadAir(
      row([1, -20], [0.8, -60], [1, -20], [0.3, -60], [1, -18], [2, -55], [0.5, -20]),
      5_000_000,
      10_000,
      settings,
    )
    expect(found).toEqual([strike(6_100_000, 6_700_000), strike(9_200_000, 11_000_000)])
    expect(totalOf(found)).toBe(2_400_000)
  })

  it('is not ended by a click, and needs no breath where the row ends', () => {
    expect(findDeadAir(row([1, -60], [0.04, -10], [1, -60]), 0, 10_000, settings)).toEqual([strike(0, 2_040_000)])
    expect(findDeadAir(row([1, -60], [0.2, -10], [1, -60]), 0, 10_000, settings)).toEqual([
      strike(0, 900_000),
      strike(1_300_000, 2_200_000),
    ])
    expect(findDeadAir(row([3, -20]), 0, 10_000, settings)).toEqual([])
    expect(findDeadAir([], 0, 10_000, settings)).toEqual([])
  })
})

describe('joins whose material is too short', () => {
  const push = { kind: 'push', direction: 'up', lengthMicros: 1_000_000, easing: 'even' }

  it('say how many frames are missing, and each remedy is enough', () => {
    const passages = [passage(50_000_000, 59_800_000, { join: push }), passage(200_000, 5_000_000)]
    const shortages = (all: Passage[]) => shortHandles(timeMapOf({ passages: all, joinTiming: 'hold' }), () => footage)
    const found = shortages(passages)
    expect(found.map((s) => [s.side, s.missingFrames])).toEqual([
      ['after', 18],
      ['before', 18],
    ])
    const [after, before] = found
    if (!after || !before) throw new Error('nothing found')
    const [first, second] = passages as [Passage, Passage]
    expect(
      shortages([slip(first, after.slipMicros ?? 0, footage), slip(second, before.slipMicros ?? 0, footage)]),
    ).toEqual([])
    expect(
      shortages([
        { ...first, speedPercent: after.speedPercent ?? 100 },
        { ...second, speedPercent: before.speedPercent ?? 100 },
      ]),
    ).toEqual([])
    const shorter = Math.min(after.joinMicros, before.joinMicros)
    expect(shortages([passageSchema.parse({ ...first, join: { ...push, lengthMicros: shorter } }), second])).toEqual([])
  })

  it('do not come up where passages overlap instead', () => {
    const passages = [passage(50_000_000, 60_000_000, { join: push }), passage(0, 5_000_000)]
    expect(shortHandles(timeMapOf({ passages, joinTiming: 'overlap' }), () => footage)).toEqual([])
  })
})
