/** Whether dark letters are read better on a colour (`#rrggbb`) than white ones: relative luminance (WCAG 2.2) above where both contrast the same. */
export function isLight(colour: string): boolean {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => {
    const v = parseInt(colour.slice(at, at + 2), 16) / 255
    return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * r + 0.7152 * g + 0.0722 * b > 0.179
}
