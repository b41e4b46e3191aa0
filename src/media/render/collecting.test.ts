import { describe, expect, it } from 'vitest'
import { Collecting } from './collecting'

const MB = 1024 * 1024

function collecting() {
  const clock = { ms: 5000 }
  const asked: { atMs: number; bytes: number }[] = []
  return {
    clock,
    asked,
    collecting: new Collecting(
      (bytes) => asked.push({ atMs: clock.ms, bytes }),
      () => clock.ms,
    ),
  }
}

describe('Collecting', () => {
  it('asks twice a second, however often there is a step', () => {
    const { clock, asked, collecting: c } = collecting()
    for (; clock.ms <= 15_000; clock.ms += 33) c.step()
    expect(asked.length).toBeGreaterThanOrEqual(18)
    expect(asked.length).toBeLessThanOrEqual(20)
    for (const [i, { atMs }] of asked.entries()) expect(atMs - (asked[i - 1]?.atMs ?? 5000)).toBeGreaterThanOrEqual(500)
  })

  it('asks for more than V8 ever lets gather, and once after a long pause', () => {
    const { clock, asked, collecting: c } = collecting()
    clock.ms += 60_000
    c.step()
    c.step()
    expect(asked).toEqual([{ atMs: 65_000, bytes: 192 * MB }])
  })

  it('asks for nothing in less than half a second', () => {
    const { clock, asked, collecting: c } = collecting()
    clock.ms += 499
    c.step()
    expect(asked).toEqual([])
  })
})
