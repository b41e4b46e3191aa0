import { z } from 'zod'
import { imageFileId } from './ids'
import { recordBase, title } from './record'

/** Pictures that can be shown; what browsers draw without running anything in it. Those that move are shown moving. */
export const IMAGE_TYPES = ['image/png', 'image/jpeg', 'image/webp', 'image/gif'] as const

/** Vector drawings can be chosen as well; what is kept is a picture of them. */
export const SVG_TYPE = 'image/svg+xml'

/** What a person may choose, as file choosers want it said. */
export const CHOOSABLE_PICTURES = [...IMAGE_TYPES, SVG_TYPE].join(',')

/** A file of one picture, still or moving: a backdrop, a logo. */
export const imageFile = recordBase.extend({
  id: imageFileId,
  name: title,
  fileName: z.string().max(1000),
  sizeBytes: z.number().int().nonnegative(),
  width: z.number().int().positive().max(20_000),
  height: z.number().int().positive().max(20_000),
})

export type ImageFile = z.infer<typeof imageFile>
