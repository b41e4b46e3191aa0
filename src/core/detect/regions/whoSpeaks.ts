import type { Rect, Size } from '../../geometry/rect'

/** Faces hold their mouths in the lower part of a tile; what is above and below moves with everybody. */
const MOUTH = { top: 0.3, bottom: 0.85, side: 0.2 } as const

/** On average somebody who speaks stirs this much more than the others, in multiples of how they stir in silence. */
const CLEARLY = 0.25

/** What it takes for somebody else to be speaking: after a pause, and where speech goes on. */
const SWITCH = { paused: 0.1, goingOn: 1.5 } as const

/**
 * Mean difference of 8-bit luma between two frames of `size` within a region's part where mouths are; `bounds` in px.
 */
export function stirred(before: Uint8Array, now: Uint8Array, { width }: Size, bounds: Rect): number {
  const left = Math.round(bounds.x + MOUTH.side * bounds.width)
  const right = Math.round(bounds.x + (1 - MOUTH.side) * bounds.width)
  const top = Math.round(bounds.y + MOUTH.top * bounds.height)
  const bottom = Math.round(bounds.y + MOUTH.bottom * bounds.height)
  let sum = 0
  for (let y = top; y < bottom; y++)
    for (let x = left; x < right; x++)
      sum += Math.abs((now[y * width + x] as number) - (before[y * width + x] as number))
  return sum / Math.max(1, (right - left) * (bottom - top))
}

/**
 * For each piece of speech the region whose owner speaks: the sequence that explains best how much more each stirs than
 * in silence, when speakers change seldom, and hardly ever without a pause. Null all through a stretch in which nobody
 * stands out. `stir[piece][region]` and `silent[pause][region]`: what {@link stirred} gives, on average; `goesOn`:
 * whether a piece follows the one before without a pause.
 */
export function whoSpeaks(
  stir: readonly (readonly number[])[],
  silent: readonly (readonly number[])[] = [],
  goesOn: readonly boolean[] = [],
): (number | null)[] {
  const regions = Array.from({ length: stir[0]?.length ?? 0 }, (_, r) => r)
  const usual = regions.map((r) => Math.max(1e-6, usualStir(stir, silent, r)))
  const ahead = stir.map((piece) => {
    const times = regions.map((r) => (piece[r] ?? 0) / (usual[r] ?? 1))
    const all = times.reduce((a, b) => a + b, 0)
    return times.map((t) => t - (all - t) / Math.max(1, times.length - 1))
  })
  const speakers = likeliest(ahead, goesOn)
  // How far ahead each is all through a stretch without a pause.
  const stretches: { sum: number; count: number }[][] = []
  const own = speakers.map((speaker, i) => {
    if (i === 0 || !goesOn[i]) stretches.push(regions.map(() => ({ sum: 0, count: 0 })))
    const share = stretches.at(-1)?.[speaker] ?? { sum: 0, count: 0 }
    share.sum += ahead[i]?.[speaker] ?? 0
    share.count++
    return share
  })
  return speakers.map((speaker, i) => ((own[i]?.sum ?? 0) > CLEARLY * (own[i]?.count ?? 0) ? speaker : null))
}

/** How much a region stirs while nobody speaks; where that was never seen, as when it is quietest. */
function usualStir(stir: readonly (readonly number[])[], silent: readonly (readonly number[])[], r: number): number {
  const quiet = silent.map((s) => s[r] ?? 0).sort((a, b) => a - b)
  return quiet[quiet.length >> 1] ?? Math.min(...stir.map((s) => s[r] ?? 0))
}

/** The path of the most gain through `ahead[piece][region]`, less what changes cost (Viterbi). */
function likeliest(ahead: readonly (readonly number[])[], goesOn: readonly boolean[]): number[] {
  const from: number[][] = []
  let best: number[] = []
  ahead.forEach((gains, i) => {
    const cost = goesOn[i] ? SWITCH.goingOn : SWITCH.paused
    const leader = best.reduce((a, value, r) => (value > (best[a] ?? -Infinity) ? r : a), 0)
    const lead = (best[leader] ?? 0) - cost
    from.push(gains.map((_, r) => (i === 0 || (best[r] ?? 0) >= lead ? r : leader)))
    best = gains.map((gain, r) => gain + (i === 0 ? 0 : Math.max(best[r] ?? 0, lead)))
  })
  let at = best.reduce((a, value, r) => (value > (best[a] ?? -Infinity) ? r : a), 0)
  const path: number[] = []
  for (let i = ahead.length - 1; i >= 0; i--) {
    path.unshift(at)
    at = from[i]?.[at] ?? at
  }
  return path
}
