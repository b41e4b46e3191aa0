import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { arrangeFor, STARTING_LAYOUTS } from '../layout/startingLayouts'
import { solve } from '../layout/solve'
import { newId, type InsetId, type PanelId, type RegionId } from '../model/ids'
import { newRegion } from '../model/region'
import { withLarge } from './withLarge'
import { piecesOfSpeech, turnsOf, type Spoken } from './turns'

const said = (from: number, to: number, speaker: number | null): Spoken => ({
  fromMicros: Math.round(from * 1e6),
  toMicros: Math.round(to * 1e6),
  speaker,
})
const turns = (spoken: Spoken[], to: number, least = 2) =>
  turnsOf(spoken, { inMicros: 0, outMicros: to * 1e6 }, least * 1e6).map((t) => [
    t.fromMicros / 1e6,
    t.toMicros / 1e6,
    t.speaker,
  ])

describe('turns', () => {
  it('go on until somebody else begins, and end in the pause before', () => {
    expect(turns([said(1, 4, 0), said(5, 9, 1), said(9.1, 12, 0)], 14)).toEqual([
      [0, 4.8, 0],
      [4.8, 9, 1],
      [9, 14, 0],
    ])
  })

  it('leave short remarks and what is not clear to whoever speaks', () => {
    expect(turns([said(1, 4, 0), said(4.5, 5, 1), said(5.5, 9, 0), said(9.5, 11, null)], 14)).toEqual([[0, 14, 0]])
  })

  it('are none where nobody is made out', () => {
    expect(turns([said(1, 4, null)], 14)).toEqual([])
  })

  it(`cover all, are long enough, and change only where nobody speaks (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 200; round++) {
      const spoken: Spoken[] = []
      for (let t = random.between(0, 2); t < 58;) {
        const to = t + random.between(0.4, 6)
        spoken.push(said(t, to, random.pick([0, 1, 2, null])))
        t = to + random.between(0, 2)
      }
      const all = turns(spoken, 70)
      if (all.length === 0) continue
      expect(all[0]?.[0]).toBe(0)
      expect(all.at(-1)?.[1]).toBe(70)
      all.forEach(([from, to, speaker], i) => {
        const next = all[i + 1]
        if (all.length > 1) expect((to as number) - (from as number)).toBeGreaterThanOrEqual(2 - 1e-6)
        if (!next) return
        expect(next[0]).toBe(to)
        expect(next[2]).not.toBe(speaker)
        const cut = Math.round((to as number) * 1e6)
        expect(spoken.filter((s) => cut > s.fromMicros && cut < s.toMicros)).toEqual([])
      })
    }
  })

  it('are heard in pieces of about a second', () => {
    const pieces = piecesOfSpeech([{ fromMicros: 0, toMicros: 3_400_000 }])
    expect(pieces).toHaveLength(3)
    expect([pieces[0]?.fromMicros, pieces.at(-1)?.toMicros]).toEqual([0, 3_400_000])
  })
})

describe('whoever speaks is large', () => {
  const people = ['Ada', 'Ben', 'Cleo'].map((name, n) =>
    newRegion(name as RegionId, 'guest', name, { x: n * 0.33, y: 0, width: 0.33, height: 1 }),
  )
  const arranged = (id: string, count: number) => {
    const starting = STARTING_LAYOUTS.find((s) => s.id === id)
    if (!starting) throw new Error(id)
    return arrangeFor(
      starting,
      people.slice(0, count).map((p) => p.role),
      () => newId<PanelId>(),
      () => newId<InsetId>(),
    )
  }
  const sizes = (id: string, count: number, who: number) => {
    const all = people.slice(0, count)
    const large = withLarge(arranged(id, count), all, all[who]?.id ?? ('' as RegionId), all)
    if (!large) throw new Error('nobody is large')
    return solve(large, { width: 1080, height: 1920 }).panels.map(({ rect }) =>
      Math.round((rect.width * rect.height) / 1e4),
    )
  }

  it('among two, three and in rows', () => {
    for (const who of [0, 1]) {
      const areas = sizes('two-people', 2, who)
      expect(areas[who]).toBeGreaterThan(1.5 * (areas[1 - who] ?? 0))
    }
    for (const who of [0, 1, 2])
      for (const id of ['three-bands', 'everyone-alike']) {
        const areas = sizes(id, 3, who)
        areas.forEach((area, n) => n !== who && expect(areas[who], `${id} ${who}`).toBeGreaterThanOrEqual(area))
      }
  })

  it('however large somebody was before', () => {
    const [ada, ben, cleo] = people
    if (!ada || !ben || !cleo) throw new Error('nobody')
    const at = (region: typeof ada, from: ReturnType<typeof arranged>) =>
      withLarge(from, people, region.id, people) ?? from
    const start = arranged('three-bands', 3)
    const heights = (from: ReturnType<typeof arranged>) =>
      solve(from, { width: 1080, height: 1920 }).panels.map(({ rect }) => Math.round(rect.height))
    expect(heights(at(ben, at(cleo, at(ben, start))))).toEqual(heights(at(ben, start)))
  })

  it('unless nobody is beside them', () => {
    const [alone] = people
    expect(alone && withLarge(arranged('face-alone', 1), [alone], alone.id, [alone])).toBeNull()
  })
})
