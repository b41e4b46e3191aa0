// What a queue of renders does with many nodes: a discrete-event simulation from measured job times. Pure and seeded;
// see docs/render-nodes.md.

/** Numbers in 0..1, the same for the same seed (mulberry32). */
export function seeded(seed) {
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = Math.imul(a ^ (a >>> 15), a | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/**
 * Arrivals over a day, s: evenly, or with a share of them in some hours, as where many shows end in the evening.
 * @param {number} jobs @param {() => number} random @param {{ share: number, fromHour: number, hours: number } |
 * null} peak
 */
export function arrivals(jobs, random, peak = null) {
  const times = []
  for (let n = 0; n < jobs; n++) {
    const inPeak = peak && random() < peak.share
    times.push(inPeak ? (peak.fromHour + random() * peak.hours) * 3600 : random() * 86_400)
  }
  return times.sort((a, b) => a - b)
}

/**
 * First come, first served. `jobSeconds(n)`: how long job `n` takes; `losses`: share of jobs whose node goes away
 * half-way, noticed after `stalledAfter` s. Waits in s until the last begin of a job, and how much of the nodes' time
 * is used.
 */
export function simulate({ times, nodes, jobSeconds, random = () => 1, losses = 0, stalledAfter = 30 }) {
  const free = new Heap(nodes)
  const waits = []
  let busy = 0
  let end = 0
  for (const [n, at] of times.entries()) {
    let from = Math.max(at, free.least)
    const seconds = jobSeconds(n)
    if (random() < losses) {
      // The node comes back when the loss is noticed; the job begins again then.
      free.replaceLeast(from + seconds / 2 + stalledAfter)
      busy += seconds / 2
      from = Math.max(from + seconds / 2 + stalledAfter, free.least)
    }
    free.replaceLeast(from + seconds)
    busy += seconds
    waits.push(from - at)
    end = Math.max(end, from + seconds)
  }
  waits.sort((a, b) => a - b)
  const quantile = (q) => waits[Math.min(waits.length - 1, Math.floor(q * waits.length))]
  return {
    mean: waits.reduce((s, w) => s + w, 0) / waits.length,
    median: quantile(0.5),
    p95: quantile(0.95),
    p99: quantile(0.99),
    longest: waits.at(-1),
    used: busy / (nodes * end),
    end,
  }
}

/** When each node is free next; the earliest at the top. */
class Heap {
  constructor(nodes) {
    this.at = new Float64Array(nodes)
  }

  get least() {
    return this.at[0]
  }

  replaceLeast(time) {
    const { at } = this
    let i = 0
    for (;;) {
      let child = 2 * i + 1
      if (child >= at.length) break
      if (child + 1 < at.length && at[child + 1] < at[child]) child++
      if (at[child] >= time) break
      at[i] = at[child]
      i = child
    }
    at[i] = time
  }
}
