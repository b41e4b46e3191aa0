import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import {
  STANDARD_FRAME_RATES,
  frameAtMicros,
  frameCount,
  frameStartMicros,
  snapToFrame,
  toFrameRate,
} from './frameRate'

describe('frames and microseconds', () => {
  it(`agree on which frame a time lies in, at every standard rate (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (const rate of STANDARD_FRAME_RATES)
      for (let i = 0; i < 500; i++) {
        const frame = random.integer(0, 3 * 3600 * 60)
        const start = frameStartMicros(frame, rate)
        expect(frameAtMicros(start, rate)).toBe(frame)
        expect(frameAtMicros(start - 1, rate)).toBe(frame - 1)
        expect(frameAtMicros(frameStartMicros(frame + 1, rate) - 1, rate)).toBe(frame)
      }
  })

  it('do not drift: an hour of 30000/1001 is 107 892 frames', () => {
    expect(frameCount(3_600_000_000, { num: 30000, den: 1001 })).toBe(107892)
    expect(frameStartMicros(107892, { num: 30000, den: 1001 })).toBe(3_599_996_400)
  })

  it('snap to the nearest frame of a recording whose first frame starts late', () => {
    const rate = { num: 25, den: 1 }
    expect(snapToFrame(1_000_000, rate, 21_000)).toBe(981_000)
    expect(snapToFrame(1_000_000, rate, 10_000)).toBe(1_010_000)
    expect(snapToFrame(995_000, rate, 10_000)).toBe(1_010_000)
    expect(snapToFrame(985_000, rate, 10_000)).toBe(970_000)
  })

  it('recognises measured rates and keeps unknown ones', () => {
    expect(toFrameRate(59.94005994)).toEqual({ num: 60000, den: 1001 })
    expect(toFrameRate(29.97)).toEqual({ num: 30000, den: 1001 })
    expect(toFrameRate(60.0001)).toEqual({ num: 60, den: 1 })
    expect(toFrameRate(17.5)).toEqual({ num: 17500, den: 1000 })
    expect(() => toFrameRate(0)).toThrow(RangeError)
    expect(() => toFrameRate(NaN)).toThrow(RangeError)
  })
})
