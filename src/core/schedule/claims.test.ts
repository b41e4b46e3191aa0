import { describe, expect, it } from 'vitest'
import { Claims } from './claims'

describe('claims', () => {
  it('make lower ranks wait until what is over soon is over, and nobody else', () => {
    const claims = new Claims()
    claims.claim('rest', 1200)
    for (const rank of ['hand', 'sound', 'rest'] as const) expect(claims.restMs(rank, 10, 1000)).toBe(0)
    for (const rank of ['playback', 'render', 'findings', 'looks'] as const)
      expect(claims.restMs(rank, 10, 1000)).toBe(200)
    expect(claims.restMs('looks', 10, 1200)).toBe(0)
  })

  it('keep what is for later waiting for a while after what is over soon', () => {
    const claims = new Claims()
    claims.claim('hand', 1000)
    expect(claims.restMs('looks', 10, 1001)).toBe(0)
    expect(claims.restMs('analysis', 10, 1001)).toBe(0)
    expect(claims.restMs('copies', 10, 1500)).toBe(2500)
    expect(claims.restMs('copies', 10, 4000)).toBe(0)
  })

  it('tell when it is calm: what lasts does not count, nor what is less urgent', () => {
    const claims = new Claims()
    expect(claims.calmInMs('looks', 0)).toBe(0)
    claims.claim('rest', 1000)
    claims.claim('playback', 9000)
    expect(claims.calmInMs('looks', 900)).toBe(3100)
    expect(claims.calmInMs('looks', 4000)).toBe(0)
    expect(claims.calmInMs('hand', 900)).toBe(0)
  })

  it('become no shorter until they are ended', () => {
    const claims = new Claims()
    claims.claim('hand', 500)
    claims.claim('hand', 300)
    expect(claims.restMs('looks', 1, 100)).toBe(400)
    claims.end('hand', 150)
    expect(claims.restMs('looks', 1, 100)).toBe(50)
    expect(claims.restMs('looks', 1, 150)).toBe(0)
  })

  it('leave a fifth of the time beside what lasts', () => {
    const claims = new Claims()
    claims.claim('playback', 100_000)
    let [now, worked] = [0, 0]
    while (now < 60_000) {
      worked += 20
      now += 20 + claims.restMs('copies', 20, now + 20)
    }
    expect(worked / now).toBeCloseTo(0.2, 2)
  })

  it('of what lasts give way to what is over soon', () => {
    const claims = new Claims()
    claims.claim('playback', 5000)
    claims.claim('hand', 1300)
    expect(claims.restMs('looks', 5, 1000)).toBe(300)
    expect(claims.restMs('looks', 5, 1400)).toBe(20)
  })
})
