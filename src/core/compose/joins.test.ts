import { describe, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { edit as editSchema, type Edit } from '../model/edit'
import { ease, join as joinSchema, JOIN_KINDS, joinAs, type Join } from '../model/join'
import { STANDARD_SHAPES, type Shape } from '../model/shape'
import { timeMapOf } from '../time/timeMap'
import { laneOf } from './feeds'
import { compose, nextFeed } from './compose'
import { feedsOf, type Step } from './composition'

const tall = STANDARD_SHAPES[0] as Shape

/** Two passages of two seconds, 10–12 s and 30–32 s, joined by `join`. */
function joined(join: object, strikes: { fromMicros: number; toMicros: number }[] = []): Edit {
  const edit = sampleEdit()
  const [first] = edit.highlight.passages
  if (!first) throw new Error('no passage')
  const passages = [
    { ...first, inMicros: 10_000_000, outMicros: 12_000_000, join: joinSchema.parse(join), strikes },
    { ...first, id: 'p2', inMicros: 30_000_000, outMicros: 32_000_000 },
  ]
  return editSchema.parse({ ...edit, highlight: { ...edit.highlight, passages } })
}

const stepsAt = (edit: Edit, t: number): Step[] => compose(edit, timeMapOf(edit.highlight), tall, t)?.steps ?? []
const layers = (steps: Step[]) => steps.flatMap((s) => (s.kind === 'layer' ? [s] : []))

describe('the frame on the way from one passage to the next', () => {
  it('of a push is both pictures, exactly side by side all the way', () => {
    for (const [direction, size] of [
      ['up', 1920],
      ['down', 1920],
      ['left', 1080],
      ['right', 1080],
    ] as const) {
      const edit = joined({ kind: 'push', direction, lengthMicros: 400_000, easing: 'soft' })
      for (let t = 1_800_000; t < 2_200_000; t += 33_333) {
        const [from, to] = layers(stepsAt(edit, t))
        if (!from || !to) throw new Error('no layers')
        const along = direction === 'up' || direction === 'down' ? ('y' as const) : ('x' as const)
        expect(Math.abs(from.offset[along] - to.offset[along])).toBe(size)
        expect(from.offset[along] % 2).toBeCloseTo(0)
        expect([from.opacity, to.opacity]).toEqual([1, 1])
      }
    }
  })

  it('of a slide leaves the first where it is', () => {
    const steps = stepsAt(
      joined({ kind: 'slide', direction: 'left', lengthMicros: 400_000, easing: 'even' }),
      2_000_000,
    )
    expect(layers(steps)).toHaveLength(1)
    expect(layers(steps)[0]?.offset).toEqual({ x: 540, y: 0 })
  })

  it('of a dissolve is as much of each as time has gone', () => {
    const edit = joined({ kind: 'dissolve', lengthMicros: 400_000, easing: 'even' })
    for (const share of [0, 0.25, 0.5, 0.75])
      expect(layers(stepsAt(edit, 1_800_000 + share * 400_000))[0]?.opacity).toBeCloseTo(share, 6)
  })

  it('of a dip is all colour in the middle, and never both pictures', () => {
    const edit = joined({ kind: 'dip', colour: '#f4f2ec', lengthMicros: 400_000, easing: 'even' })
    const tint = stepsAt(edit, 2_000_000).at(-1)
    expect(tint).toMatchObject({ kind: 'tint', colour: '#f4f2ec', opacity: 1 })
    for (let t = 1_800_000; t < 2_200_000; t += 40_000)
      expect(new Set(stepsAt(edit, t).flatMap((s) => (s.kind === 'picture' ? [s.feed.lane] : []))).size).toBe(1)
  })

  it('decodes both sides on lanes of their own', () => {
    const composition = compose(
      joined({ kind: 'push', direction: 'up', lengthMicros: 400_000, easing: 'even' }),
      timeMapOf(joined({ kind: 'push', direction: 'up', lengthMicros: 400_000, easing: 'even' }).highlight),
      tall,
      2_000_000,
    )
    if (!composition) throw new Error('nothing')
    expect(new Set(feedsOf(composition).map((f) => f.lane)).size).toBe(2)
  })
})

describe('what comes next', () => {
  it('is the run after a strike, then the next passage where its join begins', () => {
    const edit = joined({ kind: 'push', direction: 'up', lengthMicros: 400_000, easing: 'even' }, [
      { fromMicros: 10_500_000, toMicros: 11_000_000 },
    ])
    const map = timeMapOf(edit.highlight)
    const [first, second] = edit.highlight.passages
    if (!first || !second) throw new Error('no passages')
    expect(nextFeed(map, 0)).toMatchObject({
      startMicros: 500_000,
      feed: { micros: 11_000_000, lane: laneOf(first, 1) },
    })
    expect(nextFeed(map, 600_000)).toMatchObject({
      startMicros: 1_300_000,
      feed: { micros: 29_800_000, lane: laneOf(second, 0) },
    })
    expect(nextFeed(map, 2_000_000)).toBeNull()
  })
})

describe('turning one join into another', () => {
  it('keeps length and movement where both have them, and is always valid', () => {
    const kinds: Join[] = JOIN_KINDS.map((kind) =>
      joinAs({ kind: 'push', direction: 'left', within: 'canvas', lengthMicros: 720_000, easing: 'late' }, kind),
    )
    for (const j of kinds) expect(joinSchema.parse(j)).toEqual(j)
    expect(
      kinds
        .filter((j) => j.kind !== 'cut')
        .every((j) => 'lengthMicros' in j && j.lengthMicros === 720_000 && j.easing === 'late'),
    ).toBe(true)
    expect(joinAs({ kind: 'cut' }, 'dissolve')).toEqual({ kind: 'dissolve', lengthMicros: 400_000, easing: 'soft' })
  })

  it('every movement begins at 0, ends at 1 and never turns back', () => {
    for (const how of ['even', 'soft', 'late'] as const) {
      expect([ease(0, how), ease(1, how), ease(-1, how), ease(2, how)]).toEqual([0, 1, 0, 1])
      for (let x = 0; x < 1; x += 0.05) expect(ease(x + 0.05, how)).toBeGreaterThan(ease(x, how))
    }
  })
})
