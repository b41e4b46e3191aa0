import type { Point } from '../../geometry/rect'

/** What changes counts this much more than what is merely detailed. */
const CHANGE_WEIGHT = 3
/** Only places with more than this share of the strongest attract the eye. */
const MIN_OF_STRONGEST = 0.35
/** Change is spread over this many pixels around, so that a subject's two edges count as one place. */
const SPREAD = 3

/**
 * Where the eye would go in a small picture (`luma`, `[height][width]`): the weighted middle of what has changed
 * since `before` and of what is detailed, as shares of the picture; null in a picture of nothing.
 */
export function salientPoint(
  picture: Uint8Array,
  before: Uint8Array | null,
  width: number,
  height: number,
): Point | null {
  const change = before ? picture.map((v, i) => Math.abs(v - (before[i] ?? v))) : new Uint8Array(picture.length)
  // What changes everywhere is the camera or the light.
  const usualChange = medianOf(change)
  const weights = new Float32Array(picture.length)
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x
      const detail =
        Math.abs((picture[i + 1] ?? 0) - (picture[i - 1] ?? 0)) +
        Math.abs((picture[i + width] ?? 0) - (picture[i - width] ?? 0))
      weights[i] = detail / 2 + CHANGE_WEIGHT * Math.max(0, (change[i] ?? 0) - usualChange)
    }
  const soft = spread(spread(weights, width, height, 1), width, height, width)
  const strongest = soft.reduce((a, b) => Math.max(a, b), 0)
  if (strongest < 1) return null
  let [sum, sumX, sumY] = [0, 0, 0]
  for (let i = 0; i < soft.length; i++) {
    const weight = soft[i] ?? 0
    if (weight < strongest * MIN_OF_STRONGEST) continue
    sum += weight ** 2
    sumX += weight ** 2 * ((i % width) + 0.5)
    sumY += weight ** 2 * (Math.floor(i / width) + 0.5)
  }
  return { x: sumX / sum / width, y: sumY / sum / height }
}

function spread(row: Float32Array, width: number, height: number, step: number): Float32Array {
  const along = step === 1 ? width : height
  return row.map((_, i) => {
    const at = step === 1 ? i % width : Math.floor(i / width)
    let sum = 0
    for (let by = -Math.min(SPREAD, at); by <= Math.min(SPREAD, along - 1 - at); by++) sum += row[i + by * step] ?? 0
    return sum / (2 * SPREAD + 1)
  })
}

function medianOf(row: Uint8Array): number {
  return Uint8Array.from(row).sort()[row.length >> 1] ?? 0
}
