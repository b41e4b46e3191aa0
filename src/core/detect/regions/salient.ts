import type { Point } from '../../geometry/rect'

/** What changes counts this much more than what is merely detailed; */
const CHANGE_WEIGHT = 3
/** as much as this, levels, and nothing else counts. */
const MIN_CHANGE = 2
/** Only places with more than this share of the strongest attract the eye. */
const MIN_OF_STRONGEST = 0.35
/** What attracts it lies within this share of the picture about one place; what else there is does not draw it away. */
const REACH = 0.16
/** So many steps lead from the strongest place to the middle of what is about it. */
const STEPS = 5
/** Change is spread over this many pixels around, so that a subject's two edges count as one place. */
const SPREAD = 3

/**
 * Where the eye would go in a small picture (`luma`, `[height][width]`): the weighted middle (mean shift) of what is
 * about the place that differs most from `before`, a picture close in time, or where nothing does is most detailed, as
 * shares of the picture; null in a picture of nothing.
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
  const changes = new Float32Array(picture.length)
  const details = new Float32Array(picture.length)
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x
      const detail =
        Math.abs((picture[i + 1] ?? 0) - (picture[i - 1] ?? 0)) +
        Math.abs((picture[i + width] ?? 0) - (picture[i - width] ?? 0))
      details[i] = detail / 2
      changes[i] = Math.max(0, (change[i] ?? 0) - usualChange)
    }
  const soft = weightsOf(softened(changes, width, height), softened(details, width, height))
  const strongest = soft.reduce((a, b) => Math.max(a, b), 0)
  if (strongest < 1) return null
  const at = soft.indexOf(strongest)
  let point = { x: ((at % width) + 0.5) / width, y: (Math.floor(at / width) + 0.5) / height }
  const strong = soft.map((weight) => (weight < strongest * MIN_OF_STRONGEST ? 0 : weight))
  for (let step = 0; step < STEPS; step++) point = middleAbout(strong, point, width, height)
  return point
}

/** What draws the eye where: change alone, where there is enough of it. */
function weightsOf(changes: Float32Array, details: Float32Array): Float32Array {
  if (changes.some((change) => change >= MIN_CHANGE)) return changes
  return details.map((detail, i) => detail + CHANGE_WEIGHT * (changes[i] ?? 0))
}

const softened = (row: Float32Array, width: number, height: number): Float32Array =>
  spread(spread(row, width, height, 1), width, height, width)

/** The middle of the weights about a point, shares of the picture. */
function middleAbout(weights: Float32Array, { x, y }: Point, width: number, height: number): Point {
  let [sum, sumX, sumY] = [0, 0, 0]
  for (let i = 0; i < weights.length; i++) {
    const here = { x: ((i % width) + 0.5) / width, y: (Math.floor(i / width) + 0.5) / height }
    if (Math.abs(here.x - x) > REACH || Math.abs(here.y - y) > REACH) continue
    const weight = (weights[i] ?? 0) ** 2
    sum += weight
    sumX += weight * here.x
    sumY += weight * here.y
  }
  return sum > 0 ? { x: sumX / sum, y: sumY / sum } : { x, y }
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
