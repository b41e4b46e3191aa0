import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { lineUp } from './lineUp'

/** Levels as of speech and clicks: quiet with bursts. */
function levels(random: ReturnType<typeof seeded>, count: number): number[] {
  const out: number[] = []
  while (out.length < count) {
    const loud = random.next() < 0.4 ? random.between(0.1, 0.8) : random.between(0.001, 0.02)
    for (let i = random.integer(4, 40); i > 0; i--) out.push(loud * random.between(0.6, 1))
  }
  return out.slice(0, count)
}

describe('lining two recordings up by sound', () => {
  it(`finds where a stretch lies, heard through another microphone (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 12; round++) {
      const room = levels(random, 6000)
      const at = random.integer(0, 5000)
      const heard = room.slice(at, at + 900).map((v) => 0.3 * v + random.between(0, 0.02))
      const found = lineUp(heard, room)
      expect(found?.at).toBe(at)
      expect(found?.likeness).toBeGreaterThan(0.9)
    }
  })

  it('finds one that began before the other', () => {
    const room = levels(seeded(7), 3000)
    expect(lineUp(room.slice(0, 1000), room.slice(200, 2500))?.at).toBe(-200)
  })

  it('is unsure of sounds that have nothing in common, and says nothing about silence', () => {
    const random = seeded(SEED)
    expect(lineUp(levels(random, 1500), levels(random, 6000))?.likeness).toBeLessThan(0.5)
    expect(
      lineUp(
        Array.from({ length: 800 }, () => 0),
        levels(random, 3000),
      ),
    ).toBeNull()
  })
})
