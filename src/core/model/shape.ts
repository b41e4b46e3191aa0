import { z } from 'zod'

/** An output's proportion and pixel size. Sizes are even; pixels are square. */
export const shape = z.object({
  id: z.string().min(1).max(80),
  width: z.number().int().min(64).max(3840).multipleOf(2),
  height: z.number().int().min(64).max(3840).multipleOf(2),
})

export type Shape = z.infer<typeof shape>

export const STANDARD_SHAPES: readonly Shape[] = [
  { id: 'tall', width: 1080, height: 1920 },
  { id: 'portrait', width: 1080, height: 1350 },
  { id: 'square', width: 1080, height: 1080 },
  { id: 'wide', width: 1920, height: 1080 },
]
