import { expect, it } from 'vitest'
import { FIGURE_LEVELS, figureAt } from './levelFigure'

it('a level figure shows what was heard last, the newest at its end; silence is flat and loud sound fills it', () => {
  const levels = Float32Array.from({ length: 60 }, (_, i) => {
    if (i < 30) return 0
    return i === 45 ? 0.02 : 0.7
  })
  expect(figureAt(levels, 900_000)).toEqual(new Array(FIGURE_LEVELS).fill(0))
  const figure = figureAt(levels, 1_500_000)
  expect(figure).toHaveLength(FIGURE_LEVELS)
  // The 46th thirtieth begins at 1.5 s: -34 dBFS, a third of the way from -48 to -6.
  expect(figure.at(-1)).toBeCloseTo(1 / 3, 1)
  expect(figure.at(-2)).toBe(1)
  expect(figure[0]).toBe(0)
})

it('before the start and after the end it is silent', () => {
  expect(figureAt([0.7], 0)).toEqual([...new Array(FIGURE_LEVELS - 1).fill(0), 1])
  expect(figureAt([0.7], 5_000_000)).toEqual(new Array(FIGURE_LEVELS).fill(0))
})
