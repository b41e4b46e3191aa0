import { describe, expect, it } from 'vitest'
import { arrivals, seeded, simulate } from '../../bench/nodesSimulation.mjs'

/** Mean wait in a queue of Poisson arrivals and exponential service with `c` servers (Erlang C), s. */
function erlangWait(arrivalsPerSecond: number, serviceSeconds: number, c: number): number {
  const load = arrivalsPerSecond * serviceSeconds
  let blocked = 1
  for (let n = 1; n <= c; n++) blocked = (load * blocked) / (n + load * blocked)
  const waits = blocked / (1 - (load / c) * (1 - blocked))
  return (waits * serviceSeconds) / (c - load)
}

describe('the simulation of render nodes', () => {
  it.each([
    [1, 0.6],
    [4, 0.8],
    [20, 0.9],
  ])('waits as long with %i nodes at %f load as the formula says', (nodes, load) => {
    const random = seeded(7)
    const seconds = 20
    const perSecond = (load * nodes) / seconds
    let t = 0
    const times = Array.from({ length: 400_000 }, () => (t += -Math.log(1 - random()) / perSecond))
    const { mean, used } = simulate({ times, nodes, jobSeconds: () => -Math.log(1 - random()) * seconds })
    expect(Math.abs(mean / erlangWait(perSecond, seconds, nodes) - 1)).toBeLessThan(0.08)
    expect(Math.abs(used - load)).toBeLessThan(0.01)
  })

  it('makes nobody wait where there are more nodes than jobs, and everybody behind one node', () => {
    expect(simulate({ times: [0, 0, 0], nodes: 3, jobSeconds: () => 10 })).toMatchObject({ longest: 0, end: 10 })
    expect(simulate({ times: [0, 0, 0], nodes: 1, jobSeconds: () => 10 })).toMatchObject({
      median: 10,
      longest: 20,
      end: 30,
      used: 1,
    })
  })

  it('begins a lost job again, once its node has been missed', () => {
    expect(
      simulate({ times: [0], nodes: 2, jobSeconds: () => 10, random: () => 0, losses: 1, stalledAfter: 30 }),
    ).toMatchObject({ longest: 35, end: 45 })
  })

  it('spreads a day of jobs, with its evening', () => {
    const times = arrivals(10_000, seeded(1), { share: 0.5, fromHour: 20, hours: 3 })
    const evening = times.filter((t) => t >= 72_000 && t < 82_800).length
    expect(times).toHaveLength(10_000)
    expect(evening / 10_000).toBeCloseTo(0.5 + 0.5 * (3 / 24), 1)
  })
})
