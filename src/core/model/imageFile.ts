import { z } from 'zod'
import { imageFileId } from './ids'
import { recordBase, title } from './record'

/** Pictures that can be shown; what browsers draw without running anything in it. */
export const IMAGE_TYPES = ['image/png', 'image/jpeg', 'image/webp'] as const

/** A file of one still picture: a backdrop, a logo. */
export const imageFile = recordBase.extend({
  id: imageFileId,
  name: title,
  fileName: z.string().max(1000),
  sizeBytes: z.number().int().nonnegative(),
  width: z.number().int().positive().max(20_000),
  height: z.number().int().positive().max(20_000),
})

export type ImageFile = z.infer<typeof imageFile>
