/** Values are sorted into this many classes: for loudness a fifth of a dB. */
const CLASSES = 256

/** Running median over `reach` values before and after each (fewer at the ends), of values between `least` and `most`; to 1/256 of that range. */
export function slidingMedian(row: Float32Array, reach: number, least: number, most: number): Float32Array {
  const counts = new Uint32Array(CLASSES)
  const width = (most - least) / CLASSES
  const classOf = (value: number) => Math.min(CLASSES - 1, Math.max(0, Math.floor((value - least) / width)))
  const out = new Float32Array(row.length)
  let total = 0
  const count = (i: number, by: 1 | -1) => {
    const c = classOf(row[i] ?? least)
    counts[c] = (counts[c] ?? 0) + by
    total += by
  }
  for (let i = 0; i < Math.min(reach, row.length); i++) count(i, 1)
  for (let i = 0; i < row.length; i++) {
    if (i + reach < row.length) count(i + reach, 1)
    if (i - reach - 1 >= 0) count(i - reach - 1, -1)
    let seen = 0
    let c = 0
    while (c < CLASSES - 1 && (seen += counts[c] ?? 0) * 2 < total) c++
    out[i] = least + (c + 0.5) * width
  }
  return out
}
