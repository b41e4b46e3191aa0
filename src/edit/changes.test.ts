import { beforeEach, describe, expect, it } from 'vitest'
import { sampleEdit } from '../../tests/support/edits'
import { edit as editSchema, type Edit } from '@/core/model/edit'
import { newId, type LayoutId, type PassageId, type RegionId, type SetupId } from '@/core/model/ids'
import { outputLength } from '@/core/time/timeMap'
import { Session } from '@/store/session'
import { cutAtChanges, cutsAt } from './changes'
import { strikeStretch } from './passages'

const SCENE = { recordingId: 'r', setupId: 's' } as Parameters<typeof cutsAt>[1]
const FRAME = 1_000_000 / 60

let session: Session<Edit>
const passages = () => session.value.highlight.passages
const cuts = (changes: readonly number[]) => cutsAt(session.value, SCENE, changes, () => newId<PassageId>())

beforeEach(() => {
  const edit = sampleEdit()
  edit.setups.push({ ...structuredClone(edit.setups[0] as Edit['setups'][0]), id: 's2' as SetupId })
  edit.layouts.push({ ...structuredClone(edit.layouts[0] as Edit['layouts'][0]), id: 'l2' as LayoutId })
  session = new Session(edit, [], 0, () => Promise.resolve('written' as const))
})

describe('cutting where the picture changes', () => {
  it('cuts at the very frames, plays the same in all, gives each part its own, and is undone as one step', () => {
    const before = structuredClone(session.value)
    const found = cuts([15_000_000, 15_000_000 + 3 * FRAME, 20_000_000])
    expect(found).toHaveLength(3)
    const parts = [
      {
        passageId: found[1]?.newId as PassageId,
        setupId: 's2' as SetupId,
        layoutId: 'l2' as LayoutId,
        cropPaths: [{ regionId: 'g' as RegionId, keys: [{ micros: 15_000_000, x: 0.5, y: 0.5, jump: true }] }],
      },
    ]
    expect(cutAtChanges(session, { into: 'scenes', cuts: found, parts })).toBe(true)
    expect(passages().map((p) => [p.inMicros, p.outMicros])).toEqual([
      [12_000_000, 15_000_000],
      [15_000_000, 15_050_000],
      [15_050_000, 20_000_000],
      [20_000_000, 22_000_000],
    ])
    expect(passages().map((p) => p.setupId)).toEqual(['s', 's', 's2', 's'])
    expect(passages()[2]).toMatchObject({ layoutId: 'l2', cropPaths: parts[0]?.cropPaths })
    expect(outputLength(session.value.highlight)).toBe(10_000_000)
    expect(editSchema.safeParse(session.value).success).toBe(true)
    session.undo()
    expect(session.value.highlight.passages).toEqual(before.highlight.passages)
  })

  it('leaves alone what lies outside, in a strike, or in another scene, and says when that is all', () => {
    strikeStretch(session, { fromMicros: 2_000_000, toMicros: 5_000_000 })
    expect(cuts([3_000_000, 12_000_000, 22_000_000, 40_000_000])).toEqual([])
    expect(
      cutsAt(session.value, { ...SCENE, setupId: 's2' as SetupId }, [16_000_000], () => newId<PassageId>()),
    ).toEqual([])
    const [cut] = cuts([16_000_000])
    expect(cut?.micros).toBe(16_000_000)
    expect(cutAtChanges.why(session.value, { into: 'shots', cuts: [], parts: [] })).toBe(
      'nothing changes within a passage',
    )
  })
})
