import { expect, test } from 'vitest'
import { spansToHear } from './spansToHear'

const s = (from: number, to: number) => ({ fromMicros: from * 1e6, toMicros: to * 1e6 })

test('stretches with short pauses are heard together, a long pause is left out', () => {
  expect(spansToHear([s(1, 3), s(4, 6), s(12, 13)], 28e6)).toEqual([s(0.8, 6.2), s(11.8, 13.2)])
})

test('no span is longer than allowed, none overlap, and all of the speech lies in one', () => {
  const speech = [s(0.1, 20), s(20.1, 40), s(40.2, 120), s(121, 121.5)]
  const spans = spansToHear(speech, 28e6)
  for (const [i, span] of spans.entries()) {
    expect(span.toMicros - span.fromMicros).toBeLessThanOrEqual(28e6)
    expect(span.fromMicros).toBeGreaterThanOrEqual(spans[i - 1]?.toMicros ?? 0)
  }
  for (let t = 0.1e6; t < 120e6; t += 0.05e6)
    if (speech.some((x) => t >= x.fromMicros && t < x.toMicros))
      expect(
        spans.some((x) => t >= x.fromMicros && t < x.toMicros),
        `${t} µs`,
      ).toBe(true)
})

test('silence is not listened to', () => expect(spansToHear([], 28e6)).toEqual([]))
