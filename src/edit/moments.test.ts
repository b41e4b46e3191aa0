import { describe, expect, it } from 'vitest'
import { adjust, drop, keep, markAt, rename, setCut, setFinding, takeMarks } from './moments'
import { asMarks, asMoment, withProposals } from '@/core/detect/proposals'
import { sampleEdit } from '../../tests/support/edits'
import { SEED, seeded } from '../../tests/support/seeded'
import type { Analysis } from '@/core/detect/analysis'
import type { ProposedMoment } from '@/core/detect/moments'
import type { MomentId } from '@/core/model/ids'
import { newRecord } from '@/core/model/record'
import type { Recording } from '@/core/model/recording'
import { DEFAULT_WEIGHTS, MAX_MOMENTS, spotting, type Moment } from '@/core/model/spotting'
import { Session } from '@/store/session'

const recording = sampleEdit().recordings[0] as Recording
const unknown: Analysis = { durationMicros: recording.durationMicros, sound: new Map(), pictures: new Map() }
const begin = () =>
  new Session(
    spotting.parse({
      ...newRecord('2026-11-24T10:00:00.000Z'),
      id: recording.id,
      moments: [],
      weights: DEFAULT_WEIGHTS,
      reactionMicros: 4_000_000,
      mostMicros: 60_000_000,
      proposals: 15,
    }),
    [],
    0,
    () => Promise.resolve('written' as const),
  )
const proposal = (inMicros: number, outMicros: number, score = 0.5): ProposedMoment => ({
  inMicros,
  outMicros,
  peakMicros: (inMicros + outMicros) / 2,
  score,
  reasons: [],
})

it(`whatever is decided in whatever order can be stored, and undone and redone to the letter (seed ${SEED})`, () => {
  for (let round = 0; round < 10; round++) {
    const random = seeded(SEED + round)
    const session = begin()
    const history = () => session.store.getState().history
    const first = structuredClone(session.value)
    const time = () => random.integer(0, recording.durationMicros)
    const shown = () =>
      random.pick(
        withProposals(session.value.moments, [
          proposal(1_000_000, 5_000_000),
          proposal(20_000_000, 21_000_000),
          proposal(40_000_000, 59_000_000),
        ]),
      )
    for (let n = 0; n < 100; n++) {
      random.pick([
        () => keep(session, { moment: shown() }),
        () => drop(session, { moment: shown() }),
        () => rename(session, { moment: shown(), label: random.pick(['', 'Last gate', 'x'.repeat(200)]) }),
        () =>
          adjust(
            session,
            { recording, moment: shown(), which: random.pick(['in', 'out'] as const), t: time() },
            random.pick(['drag', crypto.randomUUID()]),
          ),
        () => markAt(session, recording, unknown, time()),
        () => takeMarks(session, recording, unknown, [{ inMicros: time(), outMicros: null, label: 'Two up' }]),
        () => setCut(session, { ids: [shown().id] }),
        () =>
          setFinding(
            session,
            { part: { proposals: random.integer(1, 100), mostMicros: random.integer(2, 600) * 1_000_000 } },
            'slide',
          ),
      ])()
      const where = `seed ${SEED + round}, after ${n + 1}`
      expect(spotting.parse(session.value), where).toEqual(session.value)
      for (const { inMicros, outMicros, peakMicros } of session.value.moments) {
        expect(outMicros, where).toBeGreaterThan(inMicros)
        expect(outMicros, where).toBeLessThanOrEqual(recording.durationMicros)
        expect(peakMicros >= inMicros && peakMicros <= outMicros, where).toBe(true)
      }
    }
    const last = structuredClone(session.value)
    const done = history().position
    while (history().position > 0) session.undo()
    expect(session.value).toEqual(first)
    while (history().position < done) session.redo()
    expect(session.value).toEqual(last)
  }
})

describe('deciding about moments', () => {
  it('stores a proposal only once something is decided about it, and undo makes it a proposal again', () => {
    const session = begin()
    const [shown] = withProposals([], [proposal(1_000_000, 5_000_000)])
    if (!shown) throw new Error('nothing shown')
    expect(session.value.moments).toEqual([])
    keep(session, { moment: shown })
    expect(session.value.moments).toMatchObject([{ id: shown.id, state: 'kept', source: 'proposed' }])
    drop(session, { moment: shown })
    expect(session.value.moments).toMatchObject([{ state: 'dropped' }])
    session.undo()
    session.undo()
    expect(session.value.moments).toEqual([])
  })

  it('does not propose again what something was decided about, however its edges were moved', () => {
    const decided: Moment = { ...asMoment(proposal(2_000_000, 3_000_000)), state: 'dropped' }
    expect(
      withProposals([decided], [proposal(1_000_000, 5_000_000), proposal(10_000_000, 12_000_000)]).map(
        (m) => m.inMicros,
      ),
    ).toEqual([2_000_000, 10_000_000])
  })

  it('keeps a proposal picked up while the list around it grows', () => {
    const first = withProposals([], [proposal(1_000_000, 5_000_000)])
    const later = withProposals([], [proposal(8_000_000, 9_000_000), proposal(1_000_000, 5_000_000)])
    expect(later.some((m) => m.id === first[0]?.id)).toBe(true)
  })

  it('moves edges onto frames, a frame apart at least, as one step for a drag', () => {
    const session = begin()
    const shown = asMoment(proposal(1_000_000, 5_000_000))
    for (const t of [1_200_000, 2_000_000, 9_000_000])
      adjust(session, { recording, moment: shown, which: 'in', t }, 'drag')
    expect(session.value.moments[0]).toMatchObject({ inMicros: 5_000_000 - 16_667, outMicros: 5_000_000 })
    expect(session.value.moments[0]?.peakMicros).toBeGreaterThanOrEqual(session.value.moments[0]?.inMicros ?? 0)
    session.undo()
    expect(session.value.moments).toEqual([])
  })

  it('marks what happened before the key was pressed', () => {
    const session = begin()
    const marked = markAt(session, recording, unknown, 20_000_000)
    expect(marked).toMatchObject({ peakMicros: 16_000_000, state: 'kept', source: 'marked', score: null })
    expect(marked.inMicros).toBeLessThan(16_000_000)
    expect(markAt(session, recording, unknown, 1_000_000).peakMicros).toBe(0)
    setCut(session, { ids: [marked.id] })
    expect(session.value.moments.map((m) => m.state)).toEqual(['cut', 'kept'])
  })

  it('takes marks from elsewhere once, and gives back all that were not dropped', () => {
    const session = begin()
    const marks = [
      { inMicros: 5_000_000, outMicros: 9_000_000, label: 'Gate' },
      { inMicros: 30_000_000, outMicros: null, label: '' },
    ]
    expect(takeMarks(session, recording, unknown, marks)).toEqual({ taken: 2, noRoom: 0 })
    expect(takeMarks(session, recording, unknown, marks)).toEqual({ taken: 0, noRoom: 0 })
    expect(session.value.moments[0]).toMatchObject({
      inMicros: 5_000_000,
      outMicros: 9_000_000,
      label: 'Gate',
      source: 'imported',
      state: 'open',
    })
    const second = session.value.moments[1]
    expect(second && second.inMicros < 30_000_000 && second.outMicros > 30_000_000).toBe(true)
    drop(session, { moment: session.value.moments.find((m) => m.label === 'Gate') ?? asMoment(proposal(0, 1)) })
    expect(asMarks(session.value.moments)).toHaveLength(1)
    expect(
      asMarks([{ ...asMoment(proposal(9, 20)), id: 'b' as MomentId }, asMoment(proposal(1, 4))]).map((m) => m.inMicros),
    ).toEqual([1, 9])
  })
})

it('marks beyond what can be stored are not taken', () => {
  const session = begin()
  const marks = Array.from({ length: MAX_MOMENTS - 1 }, (_, n) => ({
    inMicros: n * 20_000,
    outMicros: n * 20_000 + 10_000,
    label: `${n}`,
  }))
  expect(takeMarks(session, recording, unknown, marks)).toEqual({ taken: MAX_MOMENTS - 1, noRoom: 0 })
  expect(
    takeMarks(session, recording, unknown, [
      { inMicros: 1, outMicros: 2, label: 'one more' },
      { inMicros: 3, outMicros: 4, label: 'one too many' },
    ]),
  ).toEqual({ taken: 1, noRoom: 1 })
  expect(session.value.moments).toHaveLength(MAX_MOMENTS)
  expect(session.value.moments.at(-1)?.label).toBe('one more')
})
