import { expect, test } from 'vitest'
import { settle, SETTLED_AFTER_MS, type SettlingFile } from './settling'

const at = (name: string, sizeBytes: number, modified = sizeBytes) => ({ name, sizeBytes, modified })
const none = new Map<string, SettlingFile>()

test('a file counts as whole once it has stayed as it is for long enough, and not before', () => {
  const first = settle(none, [at('a.mkv', 100)], 0)
  expect(first).toMatchObject({ settled: [], growing: ['a.mkv'] })
  const early = settle(first.seen, [at('a.mkv', 100)], SETTLED_AFTER_MS - 1)
  expect(early.settled).toEqual([])
  expect(settle(early.seen, [at('a.mkv', 100)], SETTLED_AFTER_MS)).toMatchObject({ settled: ['a.mkv'], growing: [] })
})

test('every change of size or time starts its waiting again, also of a size that stays while the file is written over', () => {
  let { seen } = settle(none, [at('a.mkv', 100)], 0)
  for (let n = 1; n < 50; n++) {
    const now = settle(seen, [n % 2 ? at('a.mkv', 100 + n) : at('a.mkv', 99 + n, n)], n * (SETTLED_AFTER_MS - 1))
    expect(now.settled).toEqual([])
    seen = now.seen
  }
})

test('an empty file never counts, one that is gone is forgotten, others do not hold each other up', () => {
  const { seen } = settle(none, [at('empty.mp4', 0), at('a.mkv', 5), at('b.mkv', 5)], 0)
  const later = settle(seen, [at('empty.mp4', 0), at('b.mkv', 6), at('c.mkv', 1)], SETTLED_AFTER_MS)
  expect(later).toMatchObject({ settled: [], growing: ['empty.mp4', 'b.mkv', 'c.mkv'] })
  expect([...later.seen.keys()]).not.toContain('a.mkv')
  expect(settle(later.seen, [at('empty.mp4', 0), at('b.mkv', 6)], 2 * SETTLED_AFTER_MS)).toMatchObject({
    settled: ['b.mkv'],
    growing: ['empty.mp4'],
  })
  // It comes back: it has to be watched anew.
  expect(settle(later.seen, [at('a.mkv', 5)], 2 * SETTLED_AFTER_MS).settled).toEqual([])
})
