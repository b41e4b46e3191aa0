import { beforeEach, describe, expect, it } from 'vitest'
import { clearShift, placeRegion, setPath } from './regions'
import { isShifted, regionsIn } from '@/core/compose/regionIn'
import { sampleEdit } from '../../tests/support/edits'
import { placePanels } from '@/core/compose/placePanels'
import { split } from '@/core/cut/passages'
import type { Edit } from '@/core/model/edit'
import type { PassageId, RegionId } from '@/core/model/ids'
import type { Passage } from '@/core/model/passage'
import type { Region } from '@/core/model/region'
import { STANDARD_SHAPES, type Shape } from '@/core/model/shape'
import { timeMapOf } from '@/core/time/timeMap'
import { Session } from '@/store/session'
import { followedIn, planAlong } from '@/shared/looks/along'

let session: Session<Edit>
const FRAME = { width: 1920, height: 1080 }
const tall = STANDARD_SHAPES[0] as Shape
const passage = (n = 0) => session.value.highlight.passages[n] as Passage
const face = () => session.value.setups[0]?.regions[0] as Region
const faceIn = (n: number) => regionsIn(passage(n), session.value.setups[0]?.regions ?? [])[0] as Region
const PIXELS = { x: 200, y: 100, width: 480, height: 270 }

beforeEach(() => {
  session = new Session(sampleEdit(), [], 0, () => Promise.resolve('written' as const))
  session.change('Split', 'split', (draft) => {
    const [first] = draft.highlight.passages
    if (first)
      draft.highlight.passages = [
        { ...first, outMicros: 17_000_000 },
        { ...first, id: 'second' as PassageId, inMicros: 17_000_000 },
      ]
  })
})

describe('a region in one passage', () => {
  it('is put elsewhere there alone, and shown so by its panel', () => {
    placeRegion(session, passage(1), FRAME, face(), PIXELS, 'Move', 'g', true)
    expect(isShifted(passage(0), face().id)).toBe(false)
    expect(isShifted(passage(1), face().id)).toBe(true)
    expect(faceIn(1).bounds.x * 1920).toBeCloseTo(200, 6)
    expect(faceIn(0).bounds).toEqual(face().bounds)
    const cropOf = (n: number) =>
      placePanels(session.value, tall, passage(n)).find((p) => p.panel.role === 'face')?.picture?.crop
    expect(cropOf(1)?.y).toBeCloseTo(100, 6)
    expect(cropOf(0)?.y).toBeGreaterThan(700)
  })

  it('goes on lying there when it is moved again; one drag is one step; one action puts it back', () => {
    placeRegion(session, passage(1), FRAME, face(), PIXELS, 'Move', 'g', true)
    for (const x of [300, 400, 500]) placeRegion(session, passage(1), FRAME, face(), { ...PIXELS, x }, 'Move', 'drag')
    expect(faceIn(1).bounds.x * 1920).toBeCloseTo(500, 6)
    expect(faceIn(0).bounds).toEqual(face().bounds)
    session.undo()
    expect(faceIn(1).bounds.x * 1920).toBeCloseTo(200, 6)
    clearShift(session, { passageId: passage(1).id, region: face() })
    expect(faceIn(1)).toEqual(face())
  })

  it('is moved in all passages where it lies nowhere differently', () => {
    placeRegion(session, passage(0), FRAME, face(), PIXELS, 'Move', 'g')
    expect(faceIn(1).bounds.x * 1920).toBeCloseTo(200, 6)
  })

  it('follows a path in one passage until it is told to stand still', () => {
    setPath(session, {
      passageId: passage(1).id,
      region: face(),
      keys: [{ micros: 17_000_000, x: 0.75, y: 0.8, jump: true }],
    })
    expect(followedIn(passage(1))).toEqual(new Set([face().id]))
    expect(followedIn(passage(0)).size).toBe(0)
    setPath(session, { passageId: passage(1).id, region: face(), keys: [] })
    expect(followedIn(passage(1)).size).toBe(0)
  })

  it('keeps what is its own when its passage is split', () => {
    placeRegion(session, passage(1), FRAME, face(), PIXELS, 'Move', 'g', true)
    const footage = session.value.recordings[0] as Edit['recordings'][number]
    session.change('Split', 'again', (draft) => {
      draft.highlight.passages = split(
        draft.highlight.passages,
        passage(1).id,
        19_000_000,
        'third' as PassageId,
        footage,
      )
    })
    expect(session.value.highlight.passages).toHaveLength(3)
    expect(faceIn(2).bounds.x * 1920).toBeCloseTo(200, 6)
  })
})

describe('a plan of looking along', () => {
  const plan = (isGuess = false, followed: RegionId[] = []) => {
    const { highlight, recordings, setups } = session.value
    return planAlong(
      timeMapOf(highlight),
      recordings[0] as Edit['recordings'][number],
      passage(),
      setups[0]?.regions ?? [],
      isGuess,
      new Set(followed),
    )
  }

  it('has moments so close that no second can hide, each at its place in the recording', () => {
    const { moments, everyMicros } = plan()
    expect(everyMicros).toBeLessThanOrEqual(500_000)
    expect(moments).toHaveLength(10_000_000 / everyMicros)
    for (const m of moments) expect(m.recordingMicros - m.outputMicros).toBe(12_000_000)
  })

  it('looks for somebody around regions about somebody, unless they are a guess, and in those that follow', () => {
    const game = session.value.setups[0]?.regions[1]?.id as RegionId
    expect(plan().areas.map((a) => a.id)).toEqual([face().id])
    expect(plan(true).areas).toEqual([])
    expect(plan(true, [game])).toMatchObject({ closely: true, areas: [{ id: game }] })
    const [area] = plan().areas
    expect(area?.area.width).toBeGreaterThan(face().bounds.width)
  })

  it('stays the same for a small move of a region, and is another for a large one', () => {
    const before = plan().key
    placeRegion(session, passage(), FRAME, face(), { x: 1404, y: 758, width: 480, height: 270 }, 'Move', 'g')
    expect(plan().key).toBe(before)
    placeRegion(session, passage(), FRAME, face(), PIXELS, 'Move', 'h')
    expect(plan().key).not.toBe(before)
  })
})
