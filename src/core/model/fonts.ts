/** Families of the fonts that come with the application. */
export const SHIPPED_FONTS = ['Instrument Sans', 'JetBrains Mono'] as const

export const DEFAULT_FONT = SHIPPED_FONTS[0]
