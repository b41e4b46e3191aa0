import { SIGNATURE_HEIGHT, SIGNATURE_WIDTH, type FrameSignature } from './frameSignature'

/** From one frame to the next what goes on changes by no more than this, levels of 8-bit luma. */
const STAYS = 5
/** A place is told from another by what is in it: so many levels of 8-bit luma from one of its cells to the next. */
const MIN_CONTRAST = 4
/** Something of this many cells in one piece that goes on is no accident: a thirtieth of a frame. */
const MIN_CELLS = Math.round((SIGNATURE_WIDTH * SIGNATURE_HEIGHT) / 30)

/**
 * Whether a hard cut leaves nothing of what was there, as when a recorder's scene changes or the next shot of an
 * edited recording begins: in a game that cuts, a camera beside it goes on.
 */
export function isSceneChange(before: FrameSignature, after: FrameSignature): boolean {
  const goesOn = Array.from(before.luma, (level, i) => Math.abs(level - (after.luma[i] ?? 0)) <= STAYS)
  const isClear = Array.from(
    before.luma,
    (_, i) => Math.min(contrastAt(before.luma, i), contrastAt(after.luma, i)) >= MIN_CONTRAST,
  )
  return largestPiece((i) => goesOn[i] === true && isClear[i] === true) < MIN_CELLS
}

/** The greatest difference from a cell to one of its neighbours, levels. */
function contrastAt(luma: Uint8Array, i: number): number {
  return Math.max(...neighbours(i).map((n) => Math.abs((luma[i] ?? 0) - (luma[n] ?? 0))))
}

function neighbours(i: number): number[] {
  const [x, y] = [i % SIGNATURE_WIDTH, Math.floor(i / SIGNATURE_WIDTH)]
  return [
    ...(x > 0 ? [i - 1] : []),
    ...(x < SIGNATURE_WIDTH - 1 ? [i + 1] : []),
    ...(y > 0 ? [i - SIGNATURE_WIDTH] : []),
    ...(y < SIGNATURE_HEIGHT - 1 ? [i + SIGNATURE_WIDTH] : []),
  ]
}

/** How many cells the largest piece has that hangs together by its sides. */
function largestPiece(isIn: (i: number) => boolean): number {
  const seen = new Uint8Array(SIGNATURE_WIDTH * SIGNATURE_HEIGHT)
  let largest = 0
  for (let start = 0; start < seen.length; start++) {
    if (seen[start] || !isIn(start)) continue
    const waiting = [start]
    seen[start] = 1
    let size = 0
    for (let i = waiting.pop(); i !== undefined; i = waiting.pop()) {
      size++
      for (const n of neighbours(i))
        if (!seen[n] && isIn(n)) {
          seen[n] = 1
          waiting.push(n)
        }
    }
    largest = Math.max(largest, size)
  }
  return largest
}
