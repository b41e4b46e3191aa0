import { readFile } from 'node:fs/promises'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeAll, describe, expect, it } from 'vitest'
import { PEAK_TAPS, PLAIN_ARITHMETIC, type SoundArithmetic } from '@/core/sound/arithmetic'
import { Limiter } from '@/core/sound/limiter'
import { LoudnessMeter } from '@/core/sound/loudness'
import { RateChange, rateFilter } from '@/core/sound/rateChange'
import { TimeStretch } from '@/core/sound/timeStretch'
import { compileKernel } from '../../../scripts/compileKernel.mjs'
import { seeded } from '../../../tests/support/seeded'
import { startSoundKernel } from './soundKernel'

let kernel: SoundArithmetic

beforeAll(async () => {
  const file = join(mkdtempSync(join(tmpdir(), 'brimble-kernel-')), 'sound.wasm')
  await compileKernel('sound', file)
  kernel = await startSoundKernel(await readFile(file))
})

const { next: random } = seeded(5)
const noise = (length: number, level = 1) => Float32Array.from({ length }, () => level * (2 * random() - 1))

/** Voice-like: a tone that glides, with its overtones and a little noise, in both channels. */
function glide(seconds: number, level: number): Float32Array {
  const stereo = new Float32Array(seconds * 96_000)
  let phase = 0
  for (let i = 0; i < seconds * 48_000; i++) {
    phase += (2 * Math.PI * (140 + 60 * Math.sin(i / 9000))) / 48_000
    const v =
      level *
      (0.6 * Math.sin(phase) + 0.25 * Math.sin(2 * phase) + 0.1 * Math.sin(5 * phase) + 0.05 * (2 * random() - 1))
    stereo[2 * i] = v
    stereo[2 * i + 1] = 0.8 * v
  }
  return stereo
}

const inBlocks = (sound: Float32Array, size: number) =>
  Array.from({ length: Math.ceil(sound.length / size) }, (_, n) => sound.subarray(n * size, (n + 1) * size))

/** How far two sounds of one length are apart where they are farthest; NaN where one is none. */
const farthest = (a: Float32Array, b: Float32Array) =>
  a.reduce((most, v, i) => Math.max(most, Math.abs(v - (b[i] ?? NaN))), 0)

describe('the sound kernel against plain arithmetic', () => {
  it.each([1, 3, 4, 5, 480, 4800, 8176, 8177, 40_001])('has the same peaks of %i frames', (length) => {
    const all = noise(2 * (length + PEAK_TAPS - 1))
    // Some of it so quiet that it cannot matter.
    all.fill(0.01, Math.floor(all.length / 3), Math.floor(all.length / 2))
    for (const above of [0, 0.9]) {
      const [ours, plain] = [new Float32Array(length).fill(7), new Float32Array(length).fill(7)]
      const highest = kernel.oversample(all, ours, above)
      expect(Math.abs(highest - PLAIN_ARITHMETIC.oversample(all, plain, above))).toBeLessThan(1e-6)
      const told = (peak = NaN) => (peak > above ? peak : 0)
      for (let i = 0; i < length; i++) expect(Math.abs(told(ours[i]) - told(plain[i]))).toBeLessThan(1e-6)
    }
  })

  it('weighs the same, block after block, whatever their sizes', () => {
    const filter = Float64Array.of(1.53, -2.69, 1.2, -1.69, 0.73, 1, -2, 1, -1.99, 0.99)
    const [ours, plain] = [new Float64Array(8), new Float64Array(8)]
    for (const length of [1, 7, 4800, 20_000, 33]) {
      const stereo = noise(2 * length)
      const from = Math.floor(length / 3)
      const is = kernel.weigh(stereo, from, length, filter, ours)
      const be = PLAIN_ARITHMETIC.weigh(stereo, from, length, filter, plain)
      expect(Math.abs(is - be)).toBeLessThanOrEqual(1e-9 * Math.max(1, be))
    }
    for (let i = 0; i < 8; i++) expect(ours[i]).toBeCloseTo(plain[i] ?? NaN, 9)
  })

  it('finds a planted likeness where plain arithmetic does, at any length, and crosses over to it alike', () => {
    for (const length of [2, 4, 8, 90, 360, 720]) {
      // Low enough for means of eight samples to tell it.
      const tail = Float32Array.from({ length: 2 * length }, (_, i) => Math.sin(i / 28) + 0.5 * Math.sin(i / 10))
      const fade = Float32Array.from({ length }, (_, i) => (i + 0.5) / length)
      const starts = 961
      const at = Math.floor(random() * starts)
      const heard = noise(2 * (starts + 2 * length - 1), 0.05)
      if (length > 90)
        heard.set(
          tail.map((v) => v * 0.4),
          2 * at,
        )
      const [ours, plain] = [new Float32Array(2 * length), new Float32Array(2 * length)]
      const found = kernel.goOn(heard, tail, fade, ours)
      expect(found).toBe(PLAIN_ARITHMETIC.goOn(heard, tail, fade, plain))
      if (length > 90) expect(found).toBe(at)
      for (let i = 0; i < ours.length; i++) expect(Math.abs((ours[i] ?? NaN) - (plain[i] ?? NaN))).toBeLessThan(1e-6)
    }
    // What is heard is longer than the kernel's memory: it is still analysed.
    expect(kernel.goOn(noise(60_000), noise(200), noise(100), new Float32Array(200))).toBeLessThan(29_901)
  })

  it.each([
    [44_100, 48_000],
    [8000, 48_000],
    [96_000, 48_000],
    [768_000, 48_000],
    [44_101, 48_000],
  ])('changes %i samples a second to %i alike, in blocks of any size', (from, to) => {
    const [ours, plain] = [new RateChange(from, to, kernel), new RateChange(from, to)]
    for (const frames of [1, 700, 33, 20_000]) {
      const block = noise(2 * frames)
      const [a, b] = [ours.push(block), plain.push(block)]
      expect(a.length).toBe(b.length)
      expect(farthest(a, b)).toBeLessThan(2e-6)
    }
  })

  it('changes by one filter after another', () => {
    const [first, second] = [rateFilter(44_100, 48_000), rateFilter(32_000, 48_000)]
    const heard = noise(2000)
    for (const filter of [first, second, first]) {
      const [a, b] = [new Float32Array(200), new Float32Array(200)]
      kernel.changeRate(heard, filter, 1, a)
      PLAIN_ARITHMETIC.changeRate(heard, filter, 1, b)
      expect(farthest(a, b)).toBeLessThan(2e-6)
    }
  })

  it('gives the same loudness, held peaks and stretched sound', () => {
    const quiet = glide(4, 0.5)
    const loud = glide(4, 1.6)
    const [a, b] = [new LoudnessMeter(48_000, kernel), new LoudnessMeter(48_000)]
    for (const block of inBlocks(quiet, 9600)) for (const meter of [a, b]) meter.push(block)
    expect(Math.abs(a.loudness().lufs - b.loudness().lufs)).toBeLessThan(1e-4)
    expect(Math.abs(a.loudness().peakDb - b.loudness().peakDb)).toBeLessThan(1e-4)
    const [c, d] = [new Limiter(48_000, -1, kernel), new Limiter(48_000, -1)]
    const held = inBlocks(loud, 9600).map((block) => [c.push(block), d.push(block)] as const)
    for (const [ours, plain] of [...held, [c.end(), d.end()] as const]) {
      expect(ours.length).toBe(plain.length)
      for (let i = 0; i < ours.length; i += 97)
        expect(Math.abs((ours[i] ?? NaN) - (plain[i] ?? NaN))).toBeLessThan(1e-4)
    }
    const [e, f] = [new TimeStretch(1.3, kernel), new TimeStretch(1.3)]
    const energy = (sound: Float32Array) => sound.reduce((sum, v) => sum + v * v, 0)
    let [ours, plain, length] = [0, 0, 0]
    for (const block of inBlocks(quiet, 9600)) {
      const [x, y] = [e.push(block), f.push(block)]
      expect(x.length).toBe(y.length)
      ours += energy(x)
      plain += energy(y)
      length += x.length
    }
    expect(length / quiet.length).toBeCloseTo(1 / 1.3, 1)
    expect(ours / plain).toBeCloseTo(1, 2)
  })
})
