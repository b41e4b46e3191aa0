import { expect, it } from 'vitest'
import type { EditSession } from '@/store/highlights'
import { tryRemedy } from '@/edit/remedies'
import { acceptFinding } from '@/edit/highlight'
import { sampleEdit } from '../../../../tests/support/edits'
import { findingsOf, NOTHING_MEASURED } from '@/core/findings/findings'
import { causeOf, type Finding } from '@/core/findings/finding'
import { highlight } from '@/core/model/highlight'
import { Session } from '@/store/session'
import { putAllRight } from './remedies'

const open = (): EditSession => new Session(sampleEdit(), [], 0, () => Promise.resolve('written'))
const found = (session: EditSession, lufs: number, peakDb: number) =>
  findingsOf(session.value, { ...NOTHING_MEASURED, loudness: { lufs, peakDb, momentary: [] } }, tryRemedy)

it('what is too loud and clips is turned down once, in one step of undo, and a muted passage is left alone', () => {
  const session = open()
  session.change('Mute', 'g', ({ highlight: { passages } }) => {
    const [first] = passages
    if (first) passages.push({ ...first, id: 'muted' as never, sound: { ...first.sound, gainDb: -58, muted: true } })
  })
  const findings = found(session, -9, 0.5)
  expect(findings.filter((f) => f.remedy?.kind === 'gain')).toHaveLength(2)
  putAllRight(session, findings)
  expect(session.value.highlight.passages.map((p) => p.sound.gainDb)).toEqual([-5, -58])
  expect(highlight.safeParse(session.value.highlight).success).toBe(true)
  session.undo()
  expect(session.value.highlight.passages.map((p) => p.sound.gainDb)).toEqual([0, -58])
})

it('what is meant so is known again until its number changes', () => {
  const session = open()
  const loud = found(session, -9, -5).find((f) => f.fault.kind === 'loudness')
  if (!loud) throw new Error('nothing found')
  acceptFinding(session, { finding: loud })
  const isQuiet = (lufs: number) =>
    found(session, lufs, -5).every(
      (f) => f.fault.kind !== 'loudness' || session.value.highlight.accepted.includes(causeOf(f)),
    )
  expect(isQuiet(-9)).toBe(true)
  expect(isQuiet(-8)).toBe(false)
  session.undo()
  expect(isQuiet(-9)).toBe(false)
})

it('of two remedies that would change one thing in different ways, the worse one’s is done, and only that is said to be', () => {
  const session = open()
  const [passage] = session.value.highlight.passages
  if (!passage) throw new Error('no passage')
  const at = { shapeId: null, passageId: passage.id, panelId: null, fromMicros: 0, toMicros: 1, rect: null }
  const cue = (key: string, toMicros: number): Finding => ({
    ...at,
    key,
    severity: 'note',
    fault: { kind: 'too-long', overMicros: 1 },
    remedy: { kind: 'slip', passageId: passage.id, byMicros: toMicros },
  })
  const done = putAllRight(session, [cue('a', 500_000), cue('b', -500_000), cue('c', 500_000)])
  expect(done.map((f) => f.key)).toEqual(['a', 'c'])
  expect(session.value.highlight.passages[0]?.inMicros).toBe(passage.inMicros + 500_000)
})
