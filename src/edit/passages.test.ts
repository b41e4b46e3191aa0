import { beforeEach, describe, expect, it } from 'vitest'
import { goBackTo } from './highlight'
import { changeBed, insertBed, removeBed } from './sound'
import {
  duplicatePassage,
  addPassages,
  movePassage,
  removePassage,
  restoreStrike,
  setAllJoins,
  setJoinTiming,
  setSound,
  setSpeed,
  splitPassage,
  strikeAll,
  strikeStretch,
  trimAt,
  trimPassage,
} from './passages'
import { sampleEdit } from '../../tests/support/edits'
import type { Edit } from '@/core/model/edit'
import { newId, type PassageId } from '@/core/model/ids'
import { outputLength } from '@/core/time/timeMap'
import { Session } from '@/store/session'

let session: Session<Edit>
const passages = () => session.value.highlight.passages
const first = () => passages()[0]?.id as PassageId
const length = () => outputLength(session.value.highlight)

beforeEach(() => {
  session = new Session(sampleEdit(), [], 0, () => Promise.resolve('written' as const))
})

describe('cutting on the Sheet', () => {
  it('sets cut points where the playhead is, and says where what was on screen went', () => {
    expect(trimAt(session, 'in', 3_000_000)).toBe(0)
    expect(passages()[0]).toMatchObject({ inMicros: 15_000_000, outMicros: 22_000_000 })
    expect(trimAt(session, 'out', 2_000_000)).toBe(1_999_999)
    expect(length()).toBe(2_000_000)
    expect(trimAt(session, 'in', 99_000_000), 'nothing plays there').toBe(99_000_000)
  })

  it('splits once at a place, and says when there is nothing to split', () => {
    expect(splitPassage(session, { t: 4_000_000, newId: newId<PassageId>() })).toBe(true)
    expect(splitPassage(session, { t: 4_000_000, newId: newId<PassageId>() })).toBe(false)
    expect(splitPassage(session, { t: 10_000_000, newId: newId<PassageId>() })).toBe(false)
    expect(passages()).toHaveLength(2)
    expect(length()).toBe(10_000_000)
  })

  it('strikes out, restores, and undoes each as one step', () => {
    strikeStretch(session, { fromMicros: 2_000_000, toMicros: 5_000_000 })
    expect(length()).toBe(7_000_000)
    const [strike] = passages()[0]?.strikes ?? []
    if (!strike) throw new Error('nothing struck')
    restoreStrike(session, { id: first(), strike })
    expect(length()).toBe(10_000_000)
    session.undo()
    session.undo()
    expect(passages()[0]?.strikes).toEqual([])
    strikeAll(session, {
      label: 'Strike out dead air',
      stretches: [1, 3, 5].map((s) => ({
        passageId: first(),
        strike: { fromMicros: 12_000_000 + s * 1_000_000, toMicros: 12_000_000 + s * 1_000_000 + 500_000 },
      })),
    })
    expect(length()).toBe(8_500_000)
    session.undo()
    expect(length()).toBe(10_000_000)
  })

  it('moves, duplicates and removes passages, and never the last one', () => {
    splitPassage(session, { t: 4_000_000, newId: newId<PassageId>() })
    duplicatePassage(session, { id: first(), newId: newId<PassageId>() })
    expect(new Set(passages().map((p) => p.id)).size).toBe(3)
    movePassage(session, { from: 0, to: 2 })
    expect(passages().map((p) => p.inMicros)).toEqual([12_000_000, 16_000_000, 12_000_000])
    movePassage(session, { from: 0, to: 9 })
    for (const p of passages()) removePassage(session, { id: p.id })
    expect(passages()).toHaveLength(1)
    const made = (id: string) =>
      ({ ...sampleEdit().highlight.passages[0], id: id as PassageId }) as ReturnType<typeof passages>[number]
    const at = addPassages(session, [made('one'), made('two')], first())
    expect(
      passages()
        .slice(1)
        .map((p) => p.id),
    ).toEqual(['one', 'two'])
    // What is added next comes after them: that is where the playhead goes.
    expect(at).toBe(14_000_000)
  })

  it('holds numbers to what is possible', () => {
    setSpeed(session, { id: first(), percent: 1000 }, 'a')
    expect(passages()[0]?.speedPercent).toBe(400)
    setSpeed(session, { id: first(), percent: 1 }, 'b')
    expect(passages()[0]?.speedPercent).toBe(25)
    setSound(session, { id: first(), part: { muted: true, gainDb: -6 } }, 'c')
    expect(passages()[0]?.sound).toMatchObject({ muted: true, gainDb: -6, fadeInMicros: 0 })
    trimPassage(session, { id: first(), which: 'out', t: 999_000_000 }, 'd')
    expect(passages()[0]?.outMicros).toBe(60_000_000)
  })

  it('joins all alike, and takes the time out of the whole when passages overlap', () => {
    splitPassage(session, { t: 4_000_000, newId: newId<PassageId>() })
    setAllJoins(session, { join: { kind: 'dissolve', lengthMicros: 500_000, easing: 'even' } })
    expect(length()).toBe(10_000_000)
    setJoinTiming(session, { timing: 'overlap' })
    expect(length()).toBe(9_500_000)
  })

  it('adds, changes and removes music', () => {
    insertBed(session, {
      bed: {
        id: 'b' as never,
        soundFileId: 's' as never,
        startMicros: 0,
        inMicros: 0,
        gainDb: -12,
        fadeInMicros: 0,
        fadeOutMicros: 0,
        duckDb: 10,
      },
    })
    changeBed(session, { id: 'b' as never, part: { gainDb: -20 } }, 'g')
    changeBed(session, { id: 'b' as never, part: { gainDb: -24 } }, 'g')
    expect(session.value.highlight.beds[0]?.gainDb).toBe(-24)
    session.undo()
    expect(session.value.highlight.beds[0]?.gainDb).toBe(-12)
    removeBed(session, { id: 'b' as never })
    expect(session.value.highlight.beds).toEqual([])
  })

  it('goes back to a version with its regions, keeps the name, and undo leads forward again', () => {
    const before = session.value
    session.change('Rename', 'n', (draft) => {
      draft.highlight.name = 'Later name'
      const region = draft.setups[0]?.regions[0]
      if (region) region.bounds.x = 0.1
    })
    strikeStretch(session, { fromMicros: 0, toMicros: 5_000_000 })
    goBackTo(session, { edit: before } as Parameters<typeof goBackTo>[1])
    expect(length()).toBe(10_000_000)
    expect(session.value.setups[0]?.regions[0]?.bounds.x).toBe(before.setups[0]?.regions[0]?.bounds.x)
    expect(session.value.highlight.name).toBe('Later name')
    session.undo()
    expect(length()).toBe(5_000_000)
  })
})
