import { expect, test } from 'vitest'
import { seeded, SEED } from '../../../tests/support/seeded'
import { Limiter } from './limiter'
import { LoudnessMeter } from './loudness'

const RATE = 48_000

/** Through the limiter in blocks of uneven length. */
function limited(stereo: Float32Array, ceilingDb: number): Float32Array {
  const limiter = new Limiter(RATE, ceilingDb)
  const out: number[] = []
  for (let at = 0, n = 0; at < stereo.length; n++) {
    const end = Math.min(stereo.length, at + 2 * (1000 + ((n * 977) % 4000)))
    out.push(...limiter.push(stereo.subarray(at, end)))
    at = end
  }
  out.push(...limiter.end())
  return Float32Array.from(out)
}

const peakOf = (stereo: Float32Array) => {
  const meter = new LoudnessMeter(RATE)
  meter.push(stereo)
  return meter.loudness().peakDb
}

const stereo = (frames: number, at: (i: number) => number) =>
  Float32Array.from({ length: frames * 2 }, (_, i) => at(i >> 1) * (i % 2 === 0 ? 1 : 0.8))

test('what is under the ceiling comes back as it was, as long as it was', () => {
  const quiet = stereo(RATE, (i) => 0.5 * Math.sin(i / 30))
  expect(limited(quiet, -1)).toEqual(quiet)
  expect(
    limited(
      stereo(10, () => 0.3),
      -1,
    ),
  ).toHaveLength(20)
})

test('true peaks stay under the ceiling: bursts, clipped tones, peaks between samples', () => {
  const { next } = seeded(SEED)
  const sounds = [
    stereo(RATE, (i) => (i % 7000 < 300 ? 1.8 : 0.2) * Math.sin(i / 12)),
    // A quarter of the sample rate, sampled beside its crests: the wave is 3 dB higher than any sample.
    stereo(RATE / 2, (i) => Math.sin((Math.PI / 2) * i + Math.PI / 4)),
    stereo(RATE, () => 2 * (next() - 0.5) * 1.6),
  ]
  for (const sound of sounds) {
    expect(peakOf(sound)).toBeGreaterThan(-0.9)
    const held = limited(sound, -1)
    expect(held).toHaveLength(sound.length)
    expect(peakOf(held)).toBeLessThanOrEqual(-1)
  }
})

test('a single peak is turned down and nothing that lies a while before or after it', () => {
  const sound = stereo(RATE * 2, (i) => (Math.abs(i - RATE) < 20 ? 1.6 : 0.4) * Math.sin(i / 9))
  const held = limited(sound, -1)
  const changed = (from: number, to: number) =>
    Array.from({ length: to - from }, (_, i) =>
      Math.abs((held[2 * (from + i)] ?? 0) - (sound[2 * (from + i)] ?? 0)),
    ).reduce((a, b) => Math.max(a, b), 0)
  expect(changed(0, RATE - 400)).toBe(0)
  expect(changed(RATE - 20, RATE + 20)).toBeGreaterThan(0.3)
  expect(changed(RATE + RATE * 0.9, RATE * 2)).toBeLessThan(0.002)
})
