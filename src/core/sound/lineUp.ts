/** How well two sounds fit at the best place that was found. */
export interface LinedUp {
  /** Steps into the long one at which the short one begins to fit; may be negative. */
  at: number
  /** Correlation of the two there, −1..1; under 0.5 it is hardly more than chance. */
  likeness: number
}

/** The finest steps are put together by this many for the first look. */
const COARSE = 8

/** Steps about the coarse place that are looked at finely. */
const AROUND = COARSE * 2

/**
 * Where a stretch of sound lies in a longer one, both as levels in equal steps: the place at which their normalised
 * cross-correlation is largest, looked for in coarse steps first. At least half of the stretch has to lie inside.
 * Null when there is nothing to compare.
 */
export function lineUp(short: ArrayLike<number>, long: ArrayLike<number>): LinedUp | null {
  const coarse = best(sumsOf(short), sumsOf(long))
  if (!coarse) return null
  return (
    best(Float64Array.from(short), Float64Array.from(long), coarse.at * COARSE - AROUND, coarse.at * COARSE + AROUND) ??
    null
  )
}

function sumsOf(levels: ArrayLike<number>): Float64Array {
  return Float64Array.from({ length: Math.floor(levels.length / COARSE) }, (_, i) => {
    let sum = 0
    for (let k = 0; k < COARSE; k++) sum += levels[i * COARSE + k] ?? 0
    return sum
  })
}

function best(
  short: Float64Array,
  long: Float64Array,
  from = -Math.floor(short.length / 2),
  to = long.length - Math.ceil(short.length / 2),
): LinedUp | null {
  let found: LinedUp | null = null
  for (let at = from; at <= to; at++) {
    const likeness = correlation(short, long, at)
    if (likeness !== null && (!found || likeness > found.likeness)) found = { at, likeness }
  }
  return found
}

/**
 * Pearson's correlation of a stretch with what lies beside it from `at` on; null where less than half lies inside or
 * either is flat.
 */
function correlation(short: Float64Array, long: Float64Array, at: number): number | null {
  const first = Math.max(0, -at)
  const last = Math.min(short.length, long.length - at)
  const n = last - first
  if (n < Math.max(2, short.length / 2)) return null
  let [sa, sb, saa, sbb, sab] = [0, 0, 0, 0, 0]
  for (let i = first; i < last; i++) {
    const a = short[i] as number
    const b = long[at + i] as number
    sa += a
    sb += b
    saa += a * a
    sbb += b * b
    sab += a * b
  }
  const spread = (saa - (sa * sa) / n) * (sbb - (sb * sb) / n)
  return spread > 1e-12 ? (sab - (sa * sb) / n) / Math.sqrt(spread) : null
}
