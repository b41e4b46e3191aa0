/**
 * A colour as 8-bit BT.709, limited range: luma 16..235, colour differences 16..240 (Rec. ITU-R BT.709). `hex`:
 * `#rrggbb`.
 */
export function bt709Of(hex: string): { y: number; u: number; v: number } {
  const value = Number.parseInt(hex.slice(1, 7), 16)
  const [r, g, b] = [value >> 16, (value >> 8) & 255, value & 255].map((c) => c / 255) as [number, number, number]
  const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b
  return {
    y: Math.round(16 + 219 * luma),
    u: Math.round(128 + (224 * (b - luma)) / 1.8556),
    v: Math.round(128 + (224 * (r - luma)) / 1.5748),
  }
}
