/** Rows of samples one after the other, in an array of their own. */
export function concatenated(rows: readonly Float32Array[]): Float32Array<ArrayBuffer> {
  const out = new Float32Array(rows.reduce((n, row) => n + row.length, 0))
  let at = 0
  for (const row of rows) {
    out.set(row, at)
    at += row.length
  }
  return out
}
