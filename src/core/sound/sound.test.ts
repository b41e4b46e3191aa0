import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { toInterleavedStereo } from './downmix'
import { levelOf, toDecibels } from './levels'
import { splice } from './splice'

describe('splicing decoded blocks', () => {
  it('writes silence where sound starts late, and skips what lies before the range', () => {
    const range = { fromMicros: 1_000_000, total: 48000 }
    expect(splice(1_500_000, 1024, range, 0, 48000)).toEqual({ silence: 24000, skip: 0, take: 1024 })
    expect(splice(990_000, 1024, range, 0, 48000)).toEqual({ silence: 0, skip: 480, take: 544 })
    expect(splice(3_000_000, 1024, range, 0, 48000)).toEqual({ silence: 48000, skip: 0, take: 0 })
  })

  it('takes a block whose container rounded its time as following on', () => {
    const range = { fromMicros: 0, total: 48000 }
    expect(splice(21_000, 1024, range, 1024, 48000)).toEqual({ silence: 0, skip: 0, take: 1024 })
    expect(splice(22_000, 1024, range, 1024, 48000)).toEqual({ silence: 0, skip: 0, take: 1024 })
  })

  it(`fills a range exactly, whatever the blocks (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 60; round++) {
      const range = { fromMicros: random.integer(0, 5_000_000), total: random.integer(1, 100_000) }
      let written = 0
      let t = random.integer(0, 6_000_000)
      for (let i = 0; i < 200; i++) {
        const frames = random.integer(1, 2048)
        const { silence, skip, take } = splice(t, frames, range, written, 48000)
        for (const n of [silence, skip, take]) expect(n).toBeGreaterThanOrEqual(0)
        expect(skip + take).toBeLessThanOrEqual(frames)
        written += silence + take
        expect(written).toBeLessThanOrEqual(range.total)
        t += Math.round((frames * 1e6) / 48000) + random.pick([0, 0, 0, 300, -300, 50_000])
      }
    }
  })
})

describe('levels', () => {
  it('of a full-scale sine are 0 dB peak and −3 dB mean', () => {
    const sine = Float32Array.from({ length: 4800 }, (_, i) => Math.sin((2 * Math.PI * 1000 * i) / 48000))
    const { peak, rms } = levelOf([sine, sine], 0, 4800)
    expect(toDecibels(peak)).toBeCloseTo(0, 2)
    expect(toDecibels(rms)).toBeCloseTo(-3.01, 2)
    expect(toDecibels(0)).toBe(-120)
  })
})

describe('stereo', () => {
  const constant = (value: number) => new Float32Array(4).fill(value)
  it('puts mono on both sides and keeps two channels', () => {
    expect([...toInterleavedStereo([Float32Array.from([0.1, 0.2, 0.3])], 1, 2)].map((v) => v.toFixed(1))).toEqual([
      '0.2',
      '0.2',
      '0.3',
      '0.3',
    ])
    expect([...toInterleavedStereo([constant(1), constant(-1)], 0, 2)]).toEqual([1, -1, 1, -1])
  })
  it('folds 5.1 down as BS.775 says, without the LFE', () => {
    const [left, right] = toInterleavedStereo([0.1, 0.2, 0.4, 0.9, 0.05, 0.06].map(constant), 0, 1)
    expect(left).toBeCloseTo(0.1 + Math.SQRT1_2 * 0.4 + Math.SQRT1_2 * 0.05, 6)
    expect(right).toBeCloseTo(0.2 + Math.SQRT1_2 * 0.4 + Math.SQRT1_2 * 0.06, 6)
  })
})
