import { expect, test } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { LoudnessMeter } from '@/core/sound/loudness'
import { atLoudness } from './atLoudness'
import { OUTPUT_SAMPLE_RATE } from './stereo'

const SECONDS = 6
const BLOCK = 4800

/** Noise in syllables, `height` at its highest, a loud crack at two seconds, in blocks. */
function talk(height: number) {
  return async function* () {
    await Promise.resolve()
    const random = seeded(SEED)
    for (let at = 0; at < SECONDS * OUTPUT_SAMPLE_RATE; at += BLOCK) {
      const block = new Float32Array(BLOCK * 2)
      for (let i = 0; i < BLOCK; i++) {
        const t = (at + i) / OUTPUT_SAMPLE_RATE
        const syllable = Math.max(0, Math.sin(2 * Math.PI * 3 * t))
        const crack = Math.abs(t - 2) < 0.001 ? 3 : 1
        block[2 * i] = block[2 * i + 1] = random.between(-1, 1) * syllable * height * crack
      }
      yield block
    }
  }
}

async function measured(
  blocks: AsyncGenerator<Float32Array>,
): Promise<{ lufs: number; peakDb: number; frames: number }> {
  const meter = new LoudnessMeter(OUTPUT_SAMPLE_RATE)
  let frames = 0
  for await (const block of blocks) {
    meter.push(block)
    frames += block.length / 2
  }
  return { ...meter.loudness(), frames }
}

const going = new AbortController().signal

test('quiet and loud sound come to the loudness asked for, as long as they were, their peaks held', async () => {
  for (const height of [0.02, 0.3])
    for (const lufs of [-23, -16]) {
      const made = await measured(atLoudness(talk(height), lufs, going))
      expect(Math.abs(made.lufs - lufs)).toBeLessThan(0.3)
      expect(made.peakDb).toBeLessThanOrEqual(-1)
      expect(made.frames).toBe(SECONDS * OUTPUT_SAMPLE_RATE)
    }
})

test('silence stays silence', async () => {
  const made = await measured(atLoudness(talk(0), -14, going))
  expect(made.peakDb).toBe(-120)
  expect(made.frames).toBe(SECONDS * OUTPUT_SAMPLE_RATE)
})

test('it ends at once when nobody wants it any more', async () => {
  const abort = new AbortController()
  abort.abort()
  await expect(atLoudness(talk(0.1), -14, abort.signal).next()).rejects.toThrow()
})
