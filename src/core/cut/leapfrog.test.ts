import { describe, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { compose } from '../compose/compose'
import { picturesIn } from '../../../tests/support/compositions'
import type { Edit } from '../model/edit'
import type { LayoutId, PassageId } from '../model/ids'
import { newLayout } from '../model/layout'
import { newPassage } from '../model/passage'
import { newRecord } from '../model/record'
import type { Shape } from '../model/shape'
import { soundPlan } from '../sound/soundPlan'
import { timeMapOf } from '../time/timeMap'
import {
  bandsArrangement,
  lastArrangement,
  leapfrog,
  remedyOf,
  shortShots,
  withOwnPicture,
  type Leapfrog,
} from './leapfrog'

const tall: Shape = { id: 'tall', width: 1080, height: 1920 }
const how = (bands: 2 | 3): Leapfrog => ({
  bands,
  role: 'whole',
  directions: ['left', 'right', 'up'],
  lengthMicros: 400_000,
  easing: 'soft',
})

/** Shots of one recording of a minute, a second and a half each, with the same time between them. */
function shots(n: number, bands: 2 | 3): Edit {
  const edit = sampleEdit()
  const record = newRecord('2026-11-25T10:00:00.000Z')
  const [first] = edit.highlight.passages
  if (!first) throw new Error('no passage')
  const passages = Array.from({ length: n }, (_, k) =>
    newPassage({
      ...first,
      id: `shot ${k}` as PassageId,
      inMicros: k * 9_000_000,
      outMicros: k * 9_000_000 + 1_500_000,
    }),
  )
  const arrangements = [
    ...Array.from({ length: bands }, (_, taken) => bandsArrangement(how(bands), taken + 1)),
    lastArrangement(how(bands)),
  ]
  edit.layouts = arrangements.map((arrangement, i) =>
    newLayout({ ...record, id: `lay ${i}` as LayoutId, name: 'Leapfrog', ownedBy: edit.highlight.id, arrangement }),
  )
  edit.highlight.passages = leapfrog(
    passages,
    how(bands),
    edit.layouts.map((l) => l.id),
  )
  return edit
}

/** What is on screen at an output time: which shot's material in which rows. */
function shown(edit: Edit, t: number) {
  const composition = compose(edit, timeMapOf(edit.highlight), tall, t)
  if (!composition) throw new Error('nothing')
  return picturesIn(composition).map(({ step, dest }) => ({
    shot: Math.floor(step.feed.micros / 9_000_000),
    micros: step.feed.micros % 9_000_000,
    y: dest.y,
    x: dest.x,
    height: dest.height,
  }))
}

describe('a leapfrog', () => {
  it('of two bands: each shot stays while the next one comes, and the last fills the frame', () => {
    const edit = shots(5, 2)
    const at = (t: number) => shown(edit, t).map(({ shot, y, height }) => ({ shot, y, height }))
    expect(at(700_000)).toEqual([{ shot: 0, y: 0, height: 960 }])
    expect(at(2_200_000)).toEqual([
      { shot: 0, y: 0, height: 960 },
      { shot: 1, y: 960, height: 960 },
    ])
    expect(at(3_700_000)).toEqual([
      { shot: 2, y: 0, height: 960 },
      { shot: 1, y: 960, height: 960 },
    ])
    expect(at(5_200_000)).toEqual([
      { shot: 2, y: 0, height: 960 },
      { shot: 3, y: 960, height: 960 },
    ])
    expect(at(6_700_000)).toEqual([{ shot: 4, y: 0, height: 1920 }])
    // What stays goes on without a break beyond its cut point.
    expect(shown(edit, 2_200_000)[0]?.micros).toBe(2_200_000)
  })

  it('moves only the band in which something changes, and the two meet in it', () => {
    const edit = shots(5, 2)
    const during = shown(edit, 3_000_000)
    expect(during.filter((p) => p.shot === 1)).toEqual([expect.objectContaining({ x: 0, y: 960 })])
    const [out, into] = [during.find((p) => p.shot === 0), during.find((p) => p.shot === 2)]
    if (!out || !into) throw new Error('not both')
    expect(Math.abs(into.x - out.x)).toBe(1080)
    expect([out.y, into.y]).toEqual([0, 0])
  })

  it('of three bands keeps three shots on screen', () => {
    const edit = shots(6, 3)
    expect(shown(edit, 5_200_000).map(({ shot, y }) => [shot, y])).toEqual([
      [3, 0],
      [1, 640],
      [2, 1280],
    ])
    expect(shown(edit, 5_200_000)[1]?.micros).toBe(5_200_000 - 1_500_000)
  })

  it('leaves the sound of every shot on its cut points', () => {
    const edit = shots(4, 2)
    const plan = soundPlan(edit, timeMapOf(edit.highlight))
    expect(plan).toHaveLength(4)
    for (const { fades } of plan)
      for (const fade of fades) expect(fade.toMicros - fade.fromMicros).toBeLessThanOrEqual(6_000)
  })

  it('says which shots lack material, by how much, and what would put each right', () => {
    const edit = shots(4, 2)
    const footage = { ...(edit.recordings[0] as Edit['recordings'][number]), durationMicros: 29_000_000 }
    const { passages } = edit.highlight
    const third = passages[2]
    if (!third) throw new Error('no shot')
    // The third stays for its own and half a join: until 18.0 + 1.5 + 0.2 s of its recording; the second until 9.0 +
    // 3.0 + 0.2 s.
    expect(shortShots(passages, how(2), () => footage)).toEqual([])
    const short = shortShots(passages, how(2), () => ({ ...footage, durationMicros: 19_600_000 }))
    expect(short).toEqual([{ passageId: 'shot 2', missingFrames: 6, slipMicros: -100_000, speedPercent: 90 }])
    for (const change of [{ speedPercent: 90 }, { slipMicros: -100_000 }])
      expect(
        shortShots(passages.with(2, withOwnPicture(third, change)), how(2), () => ({
          ...footage,
          durationMicros: 19_600_000,
        })),
      ).toEqual([])
    expect(short.map(remedyOf)).toEqual([{ speedPercent: 90 }])
    expect(remedyOf({ passageId: third.id, missingFrames: 30, slipMicros: -500_000, speedPercent: 60 })).toEqual({
      slipMicros: -500_000,
    })
    expect(remedyOf({ passageId: third.id, missingFrames: 30, slipMicros: null, speedPercent: null })).toBeNull()
  })

  it('a short shot that is put right changes its picture alone: what is heard is the same to the sample', () => {
    const edit = shots(5, 2)
    const heard = () => soundPlan(edit, timeMapOf(edit.highlight))
    const before = heard()
    const [, , third] = edit.highlight.passages
    if (!third) throw new Error('no shot')
    edit.highlight.passages = edit.highlight.passages.with(
      2,
      withOwnPicture(withOwnPicture(third, { slipMicros: -200_000 }), { speedPercent: 50 }),
    )
    expect(heard()).toEqual(before)
    // It begins a fifth of a second sooner, and comes half as far; so does it where it stays in its band.
    const own = (t: number) => shown(edit, t).find((p) => p.y === 0)
    expect(own(3_500_000)?.micros).toBe(-200_000 + 250_000)
    expect(own(5_200_000)?.micros).toBe(-200_000 + 1_100_000)
  })
})
