import { expect, test } from 'vitest'
import { atRate, meanOf } from './mono'

test('channels are mixed by their mean', () => {
  expect([...meanOf([Float32Array.of(1, 0, -0.5), Float32Array.of(0, 1, -0.5)])]).toEqual([0.5, 0.5, -0.5])
  expect(meanOf([])).toHaveLength(0)
})

test('a slow beat has as many turns at either rate', () => {
  const wave = Float32Array.from({ length: 4800 }, (_, i) => Math.sin((2 * Math.PI * 50 * i) / 48_000))
  const turns = (x: Float32Array) => x.reduce((n, v, i) => n + ((x[i - 1] ?? 0) <= 0 && v > 0 ? 1 : 0), 0)
  for (const rate of [8000, 16_000, 96_000]) {
    expect(atRate(wave, 48_000, rate)).toHaveLength((4800 * rate) / 48_000)
    expect(turns(atRate(wave, 48_000, rate))).toBe(5)
  }
})
