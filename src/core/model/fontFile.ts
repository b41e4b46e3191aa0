import { z } from 'zod'
import { SHIPPED_FONTS } from './fonts'
import { fontFileId } from './ids'
import { recordBase } from './record'

/** What browsers take as fonts. */
export const FONT_TYPES = ['font/ttf', 'font/otf', 'font/woff', 'font/woff2'] as const
export type FontType = (typeof FONT_TYPES)[number]

const ENDINGS: Readonly<Record<string, FontType>> = {
  ttf: 'font/ttf',
  otf: 'font/otf',
  woff: 'font/woff',
  woff2: 'font/woff2',
}

/** What a person may choose, as file choosers want it said. */
export const CHOOSABLE_FONTS = Object.keys(ENDINGS)
  .map((e) => `.${e}`)
  .join(',')

/** A font by its file's ending, which is all that browsers tell of it; null for what is none. */
export function fontTypeOf(fileName: string): FontType | null {
  return ENDINGS[/\.([^.]+)$/.exec(fileName)?.[1]?.toLowerCase() ?? ''] ?? null
}

/** A font that came along: styles refer to it by its name, as to those that ship. */
export const fontFile = recordBase.extend({
  id: fontFileId,
  /** Its family: no two fonts have the same, and none has that of one that ships. */
  name: z
    .string()
    .trim()
    .min(1)
    .max(100)
    .refine((n) => !(SHIPPED_FONTS as readonly string[]).includes(n), { message: 'is the name of a font that ships' }),
  fileName: z.string().max(1000),
  sizeBytes: z.number().int().nonnegative(),
})
export type FontFile = z.infer<typeof fontFile>
