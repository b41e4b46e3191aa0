import { describe, expect, it } from 'vitest'
import { concatenated } from './concatenated'
import { RateChange } from './rateChange'

const RATES = [8000, 11_025, 22_050, 32_000, 44_056, 44_100, 88_200, 96_000]

/** A tone on the left and its cosine on the right, as interleaved stereo. */
const tone = (hz: number, rate: number, frames: number) =>
  Float32Array.from(
    { length: 2 * frames },
    (_, i) => 0.5 * (i % 2 === 0 ? Math.sin : Math.cos)((2 * Math.PI * hz * Math.floor(i / 2)) / rate),
  )

function changed(sound: Float32Array, from: number, to: number, size = sound.length): Float32Array {
  const change = new RateChange(from, to)
  const out: Float32Array[] = []
  for (let at = 0; at < sound.length; at += size) out.push(change.push(sound.subarray(at, at + size)).slice())
  return concatenated([...out, change.end()])
}

/** The highest that is left of `sound` without `expected`, away from both ends, where silence is looked at too. */
function highestOff(sound: Float32Array, expected: Float32Array): number {
  let most = 0
  for (let i = 2000; i < Math.min(sound.length, expected.length) - 2000; i++)
    most = Math.max(most, Math.abs((sound[i] ?? NaN) - (expected[i] ?? NaN)))
  return most
}

describe('change of sample rate', () => {
  it.each(RATES)('gives the tone that %i samples a second stand for, at its time, −80 dB off at most', (rate) => {
    for (const hz of [50, 997, 0.4 * Math.min(rate, 48_000)])
      expect(highestOff(changed(tone(hz, rate, rate / 2), rate, 48_000), tone(hz, 48_000, 24_000))).toBeLessThan(
        1e-4 * 0.5,
      )
  })

  it('lets nothing through that the slower rate cannot hold', () => {
    expect(highestOff(changed(tone(30_000, 96_000, 48_000), 96_000, 48_000), new Float32Array(48_000))).toBeLessThan(
      1e-5,
    )
    // What 44 100 cannot tell from 20 kHz would lie at 24.1.
    const up = changed(tone(19_500, 44_100, 22_050), 44_100, 48_000)
    expect(highestOff(up, tone(19_500, 48_000, 24_000))).toBeLessThan(1e-4)
  })

  it.each(RATES)('of %i samples a second is as long as what went in, in blocks of any size, and the same', (rate) => {
    const sound = tone(440, rate, 3000)
    const whole = changed(sound, rate, 48_000)
    expect(whole.length / 2).toBe(Math.ceil((3000 * 48_000) / rate))
    for (const size of [2, 14, 600]) {
      const parts = changed(sound, rate, 48_000, size)
      expect(parts.length).toBe(whole.length)
      expect(parts.findIndex((v, i) => v !== whole[i])).toBe(-1)
    }
  })

  it('keeps a steady level steady', () => {
    const level = changed(new Float32Array(20_000).fill(0.25), 44_100, 48_000)
    expect(highestOff(level, new Float32Array(level.length).fill(0.25))).toBeLessThan(1e-6)
  })
})
