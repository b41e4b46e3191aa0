import type { Rect, Size } from '../../geometry/rect'

/** Faces hold their mouths in the lower part of a tile; what is above and below moves with everybody. */
const MOUTH = { top: 0.3, bottom: 0.85, side: 0.2 } as const

/** The one who speaks stirs this much more than the next, or nobody is named. */
const CLEARLY = 1.25

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
 * For each stretch of speech the region whose owner speaks, by how much more it stirs than when it is quietest; null
 * where two stir alike. `stir[stretch][region]`: what {@link stirred} gives, on average.
 */
export function whoSpeaks(stir: readonly (readonly number[])[]): (number | null)[] {
  const regions = stir[0]?.length ?? 0
  const rest = Array.from({ length: regions }, (_, r) => Math.min(...stir.map((s) => s[r] ?? 0)))
  return stir.map((s) => {
    const ranked = s
      .map((value, r) => ({ r, more: value - (stir.length > 2 ? (rest[r] ?? 0) * 0.9 : 0) }))
      .sort((a, b) => b.more - a.more)
    const [first, second] = ranked
    return first && second && first.more > CLEARLY * second.more ? first.r : null
  })
}
