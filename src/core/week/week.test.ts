import { expect, it } from 'vitest'
import { newRecord } from '../model/record'
import { post as postSchema, type Post, type PostState } from '../model/post'
import { afterFailure, daysOf, isDue, notesOn, onDay, weekStart } from './week'

const at = (day: number, hour: number, minute = 0) => new Date(2026, 10, day, hour, minute)
let count = 0
const post = (dueAt: Date, renderId: string, outletId = 'story', state: PostState = { kind: 'planned' }): Post =>
  postSchema.parse({
    ...newRecord('2026-11-20T10:00:00.000Z'),
    id: `p${count++}`,
    renderId,
    outletId,
    dueAt: dueAt.toISOString(),
    title: 'Last gate',
    text: '',
    state,
  })

it('a week begins on Monday, local time, and has seven days across a change of the clock', () => {
  expect(weekStart(at(26, 15))).toEqual(new Date(2026, 10, 23))
  expect(weekStart(at(23, 0))).toEqual(new Date(2026, 10, 23))
  expect(weekStart(at(29, 23, 59))).toEqual(new Date(2026, 10, 23))
  const days = daysOf(new Date(2026, 9, 19))
  expect(days.map((d) => [d.getDate(), d.getHours()])).toEqual([19, 20, 21, 22, 23, 24, 25].map((d) => [d, 0]))
  expect(onDay(at(24, 18, 45), new Date(2026, 10, 27))).toEqual(at(27, 18, 45))
})

it('tells of doublings, crowds and gaps by outlet, and of nothing else', () => {
  const plain = [post(at(23, 18), 'a'), post(at(24, 18), 'b'), post(at(26, 18), 'c'), post(at(26, 18), 'a', 'square')]
  expect(notesOn(plain)).toEqual([])
  const [first, again] = [post(at(23, 18), 'a'), post(at(25, 18), 'a')]
  expect(notesOn([again, first])).toEqual([{ kind: 'twice', postIds: [first.id, again.id] }])
  const [one, other] = [post(at(23, 18), 'a'), post(at(23, 19, 30), 'b')]
  expect(notesOn([one, other])).toEqual([{ kind: 'close', postIds: [one.id, other.id], minutes: 90 }])
  expect(notesOn([post(at(23, 18), 'a'), post(at(27, 18), 'b')])).toEqual([
    { kind: 'gap', outletId: 'story', days: 4, from: at(23, 18).toISOString() },
  ])
})

it('what passes by itself is tried again later and later, then left to a person; what does not is at once', () => {
  const now = at(23, 18)
  const waits = [1, 2, 3, 4, 5, 6].map((n) => {
    const state = afterFailure('offline', '', n, now)
    return state.kind === 'failed' && state.again ? (Date.parse(state.again) - now.getTime()) / 60_000 : null
  })
  expect(waits).toEqual([1, 2, 4, 8, 16, null])
  for (const reason of ['too-large', 'refused', 'signed-out', 'file-gone'] as const)
    expect(afterFailure(reason, '', 1, now)).toMatchObject({ again: null })
})

it('a post is due when its time or its next attempt has come, and never once it was sent', () => {
  const now = at(24, 12)
  expect([isDue(post(at(24, 11, 59), 'a'), now), isDue(post(at(24, 12, 1), 'a'), now)]).toEqual([true, false])
  const early = at(24, 11).toISOString()
  expect(isDue(post(at(24, 11), 'a', 'story', { kind: 'posted', at: early, remoteId: 'x' }), now)).toBe(false)
  expect(isDue(post(at(24, 11), 'a', 'story', { kind: 'sending' }), now)).toBe(false)
  expect(isDue(post(at(24, 11), 'a', 'story', afterFailure('busy', '', 1, at(24, 11))), now)).toBe(true)
  expect(isDue(post(at(24, 11), 'a', 'story', afterFailure('refused', '', 1, at(24, 11))), now)).toBe(false)
})
