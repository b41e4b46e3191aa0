/**
 * A small seeded generator (mulberry32). The seed is in the name of each test that uses it, so a failure can be run
 * again.
 */
export function seeded(seed: number) {
  let a = seed >>> 0
  const next = () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = Math.imul(a ^ (a >>> 15), a | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  return {
    /** 0 ≤ x < 1 */
    next,
    /** An integer, both ends included. */
    integer: (from: number, to: number) => from + Math.floor(next() * (to - from + 1)),
    between: (from: number, to: number) => from + next() * (to - from),
    pick: <T>(items: readonly T[]): T => items[Math.floor(next() * items.length)] as T,
  }
}

export const SEED = Number(process.env.SEED ?? 20261124)
