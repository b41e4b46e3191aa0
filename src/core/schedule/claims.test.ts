import { describe, expect, it } from 'vitest'
import { Claims, RANKS } from './claims'

describe('claims', () => {
  it('make lower ranks wait until what is over soon is over, and nobody else', () => {
    const claims = new Claims()
    claims.claim('rest', 1200)
    for (const rank of RANKS)
      expect(claims.restMs(rank, 10, 1000)).toBe(RANKS.indexOf(rank) > RANKS.indexOf('rest') ? 200 : 0)
    expect(claims.restMs('analysis', 10, 1200)).toBe(0)
  })

  it('never become shorter', () => {
    const claims = new Claims()
    claims.claim('hand', 500)
    claims.claim('hand', 300)
    expect(claims.restMs('looks', 1, 100)).toBe(400)
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
    expect(claims.restMs('copies', 5, 1000)).toBe(300)
    expect(claims.restMs('copies', 5, 1400)).toBe(20)
  })
})
