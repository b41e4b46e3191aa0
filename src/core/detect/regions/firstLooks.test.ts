import { expect, it } from 'vitest'
import { firstLooks } from './firstLooks'

/** Moments four a second with a key frame every so many of them. */
const every = (moments: number, count: number) => Array.from({ length: count }, (_, i) => Math.floor(i / moments))

it('are those after key frames, and between them as early as leaves no gap', () => {
  expect(firstLooks(every(8, 25))).toEqual([0, 3, 8, 11, 16, 19, 24])
  expect(firstLooks(every(4, 13))).toEqual([0, 4, 8, 12])
})

it('leave no gap of more than a second and a quarter, with key frames wherever', () => {
  for (const moments of [1, 2, 5, 7, 11, 20, 100]) {
    const looks = firstLooks(every(moments, 83))
    expect([looks[0], looks.at(-1)]).toEqual([0, 82])
    expect(Math.max(...looks.slice(1).map((at, n) => at - (looks[n] ?? 0)))).toBeLessThanOrEqual(5)
    expect(looks).toEqual([...new Set(looks)].sort((a, b) => a - b))
  }
  expect(firstLooks([])).toEqual([])
  expect(firstLooks([0])).toEqual([0])
})
