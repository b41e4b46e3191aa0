import { expect, test } from 'vitest'
import type { SoundSource } from '../source/openSource'
import { SoundMemory } from './soundMemory'

const RATE = 48_000
const source = {} as SoundSource

/**
 * Sound of `seconds` whose left sample is its frame's number, in blocks of 1000 frames; counts how much of it was
 * read.
 */
function counting(seconds: number) {
  const read = { frames: 0 }
  const memory = new SoundMemory(async function* (_, fromMicros) {
    await Promise.resolve()
    const first = Math.round((fromMicros * RATE) / 1e6)
    const frames = Math.max(0, seconds * RATE - first)
    for (let at = 0; at < frames; at += 1000) {
      const count = Math.min(1000, frames - at)
      read.frames += count
      yield Float32Array.from({ length: count * 2 }, (__, i) => (i % 2 === 0 ? first + at + (i >> 1) : 0))
    }
  })
  return { memory, read }
}

async function heard(memory: SoundMemory, fromMicros: number, speedPercent = 100, most = Infinity): Promise<number[]> {
  const left: number[] = []
  for await (const block of memory.read('r', source, fromMicros, speedPercent)) {
    for (let i = 0; i < block.length; i += 2) left.push(block[i] as number)
    if (left.length >= most) break
  }
  return left
}

test('sound comes as it would have been read, wherever it begins, and is read once', async () => {
  const { memory, read } = counting(12)
  const all = await heard(memory, 0)
  expect(all).toEqual(Array.from({ length: 12 * RATE }, (_, i) => i))
  expect(read.frames).toBe(12 * RATE)
  expect(await heard(memory, 7_300_000)).toEqual(all.slice(7.3 * RATE))
  expect((await heard(memory, -500_000)).slice(0, RATE)).toEqual([
    ...new Array<number>(RATE / 2).fill(0),
    ...all.slice(0, RATE / 2),
  ])
  expect(read.frames).toBe(12 * RATE)
})

test('stretched sound is made of what is kept, and kept itself; where reading was broken off, it goes on', async () => {
  const { memory, read } = counting(6)
  await heard(memory, 0)
  expect(read.frames).toBe(6 * RATE)
  const part = await heard(memory, 1_000_000, 200, 20_000)
  const all = await heard(memory, 1_000_000, 200)
  expect(Math.abs(all.length - 2.5 * RATE)).toBeLessThan(1000)
  expect(all.slice(0, part.length)).toEqual(part)
  // Pieces are moved by up to 10 ms to fit.
  expect(Math.abs((all[RATE] ?? 0) - 3 * RATE)).toBeLessThan(1200)
  const again = await heard(memory, 1_000_000, 200, 2 * RATE)
  expect(again).toEqual(all.slice(0, again.length))
  expect(read.frames).toBe(6 * RATE)
})

test('what is kept stays within its limit: of an hour only the latest minutes', async () => {
  const { memory, read } = counting(240)
  await heard(memory, 0)
  await heard(memory, 235_000_000)
  expect(read.frames).toBe(240 * RATE)
  await heard(memory, 0, 100, RATE)
  expect(read.frames).toBe(245 * RATE)
})

test('what lies ahead is read while there is room, and not again when it is asked for', async () => {
  const { memory, read } = counting(400)
  const { signal } = new AbortController()
  await memory.readAhead('r', source, -5_000_000, 30_000_000, signal)
  expect(read.frames).toBe(30 * RATE)
  await heard(memory, 4_000_000, 100, 25 * RATE)
  expect(read.frames).toBe(30 * RATE)
  await memory.readAhead('r', source, 0, 400_000_000, signal)
  const room = read.frames
  expect(room).toBeLessThan(180 * RATE)
  await heard(memory, 0, 100, 170 * RATE)
  expect(read.frames).toBe(room)
  await memory.readAhead('r', source, 300_000_000, 400_000_000, AbortSignal.abort())
  expect(read.frames).toBe(room)
  // What is wanted in any case takes the place of what was used longest ago.
  await memory.readAhead('r', source, 300_000_000, 320_000_000, signal, true)
  expect(read.frames).toBe(room + 20 * RATE)
  await heard(memory, 300_000_000, 100, 20 * RATE)
  expect(read.frames).toBe(room + 20 * RATE)
})
