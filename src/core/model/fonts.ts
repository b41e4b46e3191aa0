/** Families of the fonts that come with the application, for words on the picture. */
export const SHIPPED_FONTS = [
  'Instrument Sans',
  'Archivo',
  'Anton',
  'Fredoka',
  'Lora',
  'Caveat',
  'JetBrains Mono',
] as const

export const DEFAULT_FONT = SHIPPED_FONTS[0]

/** What letters that a font lacks are taken from, in this order; they come with the application too. */
export const FALLBACK_FONTS = [
  'Noto Sans',
  'Noto Sans Arabic',
  'Noto Sans Hebrew',
  'Noto Sans JP',
  'Noto Sans SC',
  'Noto Sans KR',
  'Twemoji',
] as const
