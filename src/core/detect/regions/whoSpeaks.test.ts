import { expect, it } from 'vitest'
import { SEED, seeded } from '../../../../tests/support/seeded'
import { stirred, whoSpeaks } from './whoSpeaks'

it('names who stirs most; nobody where two stir alike', () => {
  expect(
    whoSpeaks([
      [4, 1],
      [1.1, 3.6],
      [2, 2],
    ]),
  ).toEqual([0, 1, null])
  expect(whoSpeaks([])).toEqual([])
})

it('somebody who always moves about is not taken for the speaker', () => {
  const stir = [
    [9, 1],
    [6.1, 3],
    [9.5, 1.1],
    [6, 3.2],
  ]
  const silent = [
    [6, 1],
    [6.1, 0.9],
    [5.8, 1],
  ]
  expect(whoSpeaks(stir, silent)).toEqual([0, 1, 0, 1])
})

it('a nod in mid-sentence is no change of speaker; somebody who falls in is', () => {
  const silent = [[1, 1]]
  const nod = [
    [1, 3],
    [1.2, 2.8],
    [1.9, 1.1],
    [1, 3],
  ]
  expect(whoSpeaks(nod, silent, [false, true, true, true])).toEqual([1, 1, 1, 1])
  const fallsIn = [
    [1, 3],
    [1, 3.2],
    [3, 1],
    [3.4, 1.2],
  ]
  expect(whoSpeaks(fallsIn, silent, [false, true, true, true])).toEqual([1, 1, 0, 0])
})

it(`only what lies where mouths are counts (seed ${SEED})`, () => {
  const size = { width: 80, height: 60 }
  const { next } = seeded(SEED)
  const before = Uint8Array.from({ length: 4800 }, () => Math.floor(next() * 200))
  const bounds = { x: 40, y: 0, width: 40, height: 60 }
  const changed = (x: number, y: number) => {
    const now = before.slice()
    for (let dy = 0; dy < 4; dy++)
      for (let dx = 0; dx < 4; dx++) now[(y + dy) * 80 + x + dx] = (now[(y + dy) * 80 + x + dx] as number) + 50
    return stirred(before, now, size, bounds)
  }
  expect(stirred(before, before, size, bounds)).toBe(0)
  expect(changed(58, 40)).toBeCloseTo((16 * 50) / (24 * 33), 5)
  expect(changed(58, 2)).toBe(0)
  expect(changed(10, 40)).toBe(0)
})
