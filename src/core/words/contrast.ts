import type { TextStyle } from '../model/textStyle'

/** Relative luminance of a colour (`#rrggbb`), 0..1 (WCAG 2.2). */
function luminance(colour: string): number {
  const [r = 0, g = 0, b = 0] = channels(colour).map((v) =>
    v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4,
  )
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}

const channels = (colour: string) => [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16))

/**
 * Whether dark letters are read better on a colour (`#rrggbb`) than white ones: luminance above where both contrast
 * the same.
 */
export function isLight(colour: string): boolean {
  return luminance(colour) > 0.179
}

/** Contrast of two colours, 1..21 (WCAG 2.2). */
export function contrastRatio(a: string, b: string): number {
  const [light = 0, dark = 0] = [luminance(a), luminance(b)].sort((x, y) => y - x)
  return (light + 0.05) / (dark + 0.05)
}

/** What letters of a colour can be read on, whatever is behind. */
export const blockFor = (colour: string): NonNullable<TextStyle['block']> => ({
  behind: 'line',
  colour: isLight(colour) ? '#101410' : '#ffffff',
  opacity: 0.85,
  radius: 0.2,
})

/** `colour` laid over `under` with an opacity 0..1. */
export function blended(colour: string, under: string, opacity: number): string {
  const below = channels(under)
  return `#${channels(colour)
    .map((v, i) =>
      Math.round(v * opacity + (below[i] ?? 0) * (1 - opacity))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`
}
