import { z } from 'zod'
import { colour } from './colour'
import { brandId, imageFileId } from './ids'
import { recordBase, title } from './record'
import { tag } from './tag'

/** What a maker's things have in common. Applied to layouts and words; nothing of it is on a picture by itself. */
export const brand = recordBase.extend({
  id: brandId,
  name: title,
  tags: z.array(tag).max(20).default([]),
  palette: z.object({
    /** Behind everything. */
    ground: colour,
    /** Words. */
    ink: colour,
    accent: colour,
  }),
  /** Families of the shipped fonts, or of one that came along. */
  fonts: z.object({ title: z.string().min(1).max(100), captions: z.string().min(1).max(100) }),
  logo: imageFileId.nullable().default(null),
  endCard: imageFileId.nullable().default(null),
  handle: z.string().trim().max(60).default(''),
})

export type Brand = z.infer<typeof brand>
