/** Values are sorted into this many classes: for loudness a fifth of a dB. */
const CLASSES = 256

/**
 * Running median over `reach` values before and after each (fewer at the ends), of values between `least` and `most`;
 * to 1/256 of that range. The median's class is carried from value to value, since it seldom moves far (Huang, Yang
 * and Tang 1979, a fast two-dimensional median filtering algorithm).
 */
export function slidingMedian(row: Float32Array, reach: number, least: number, most: number): Float32Array {
  const width = (most - least) / CLASSES
  const classes = Uint8Array.from(row, (value) =>
    Math.min(CLASSES - 1, Math.max(0, Math.floor((value - least) / width))),
  )
  const counts = new Uint32Array(CLASSES)
  const out = new Float32Array(row.length)
  let total = 0
  let median = 0
  let under = 0
  const count = (i: number, by: 1 | -1) => {
    const c = classes[i] as number
    counts[c] = (counts[c] as number) + by
    total += by
    if (c < median) under += by
  }
  for (let i = 0; i < Math.min(reach, row.length); i++) count(i, 1)
  for (let i = 0; i < row.length; i++) {
    if (i + reach < row.length) count(i + reach, 1)
    if (i - reach - 1 >= 0) count(i - reach - 1, -1)
    while (median > 0 && under * 2 >= total) under -= counts[--median] as number
    while (median < CLASSES - 1 && (under + (counts[median] as number)) * 2 < total) under += counts[median++] as number
    out[i] = least + (median + 0.5) * width
  }
  return out
}
