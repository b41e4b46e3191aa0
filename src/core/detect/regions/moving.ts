import type { Rect } from '../../geometry/rect'

/** Brightness that differs by more than this from what is usual at its place belongs to something that came. */
const MIN_DIFFERENCE = 14
/** Less of the picture than this share is noise. */
const MIN_SHARE = 0.01
/** Against the usual size of what moves, less than this is what is left when it has gone. */
const MIN_OF_USUAL = 0.35
/** The box leaves out this share of the subject's pixels at each side. */
const TAIL = 0.04

/**
 * Where something stands out from what is usual, in small pictures of one place (`luma`, `[height][width]`): persons
 * before a background that holds still, whatever they look like. A box in shares of the picture for each, null where
 * nothing does.
 */
export function movingSubjects(pictures: readonly Uint8Array[], width: number, height: number): (Rect | null)[] {
  const usual = medianOf(pictures, width * height)
  const seen = pictures.map((p) => boxOf(p, usual, width, height))
  const sizes = seen.map((s) => s.count).sort((a, b) => a - b)
  const typical = sizes[Math.floor(sizes.length / 2)] ?? 0
  return seen.map(({ count, box }) =>
    count >= Math.max(width * height * MIN_SHARE, typical * MIN_OF_USUAL) ? box : null,
  )
}

function medianOf(pictures: readonly Uint8Array[], count: number): Uint8Array {
  const column = new Uint8Array(pictures.length)
  return Uint8Array.from({ length: count }, (_, i) => {
    pictures.forEach((p, n) => (column[n] = p[i] ?? 0))
    return column.sort()[Math.floor(column.length / 2)] ?? 0
  })
}

function boxOf(picture: Uint8Array, usual: Uint8Array, width: number, height: number): { count: number; box: Rect } {
  const columns = new Uint32Array(width)
  const rows = new Uint32Array(height)
  let count = 0
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (Math.abs((picture[y * width + x] ?? 0) - (usual[y * width + x] ?? 0)) <= MIN_DIFFERENCE) continue
      count++
      columns[x] = (columns[x] ?? 0) + 1
      rows[y] = (rows[y] ?? 0) + 1
    }
  const [left, right] = middle(columns, count)
  const [top, bottom] = middle(rows, count)
  return {
    count,
    box: { x: left / width, y: top / height, width: (right - left) / width, height: (bottom - top) / height },
  }
}

/** From where to where most of a histogram lies, end-exclusive. */
function middle(histogram: Uint32Array, count: number): [number, number] {
  let sum = 0
  let from = 0
  let to = histogram.length
  for (let i = 0; i < histogram.length; i++) {
    const before = sum
    sum += histogram[i] ?? 0
    if (before <= count * TAIL && sum > count * TAIL) from = i
    if (before < count * (1 - TAIL) && sum >= count * (1 - TAIL)) to = i + 1
  }
  return [from, to]
}
