import { z } from 'zod'

/** Sides of an output, px. */
export const MIN_SIDE = 64
export const MAX_SIDE = 3840

/** An output's proportion and pixel size. Sizes are even; pixels are square. */
export const shape = z.object({
  id: z.string().min(1).max(80),
  width: z.number().int().min(MIN_SIDE).max(MAX_SIDE).multipleOf(2),
  height: z.number().int().min(MIN_SIDE).max(MAX_SIDE).multipleOf(2),
})

export type Shape = z.infer<typeof shape>

export const STANDARD_SHAPES: readonly Shape[] = [
  { id: 'tall', width: 1080, height: 1920 },
  { id: 'portrait', width: 1080, height: 1350 },
  { id: 'square', width: 1080, height: 1080 },
  { id: 'wide', width: 1920, height: 1080 },
]

/**
 * A shape of a size of one's own, px; odd sides become the next even ones, and `rounded` says so. Null when it is no
 * size for a video. A standard size is that shape.
 */
export function ownShape(width: number, height: number): { shape: Shape; rounded: boolean } | null {
  const sides = [width, height].map((side) => 2 * Math.round(side / 2)) as [number, number]
  if (![width, height, ...sides].every((side) => Number.isFinite(side) && side >= MIN_SIDE && side <= MAX_SIDE))
    return null
  const [w, h] = sides
  const standard = STANDARD_SHAPES.find((s) => s.width === w && s.height === h)
  return { shape: standard ?? { id: `own-${w}x${h}`, width: w, height: h }, rounded: w !== width || h !== height }
}
