import { SIGNATURE_HEIGHT, SIGNATURE_WIDTH, type FrameSignature } from './frameSignature'

/** From one frame to the next what goes on changes by no more than this, levels of 8-bit luma. */
const STAYS = 5
/** A place is told from another by its edges: there the Laplacian is so large, levels, in whichever direction. */
const MIN_EDGE = 24
/** Edges that go on differ by no more than this. */
const EDGE_STAYS = 12
/** So many cells with edges in one piece that goes on are no accident. */
const MIN_CELLS = 8

const CELLS = SIGNATURE_WIDTH * SIGNATURE_HEIGHT

/** The cells beside each cell of a signature. */
const BESIDE: readonly (readonly number[])[] = Array.from({ length: CELLS }, (_, i) => {
  const [x, y] = [i % SIGNATURE_WIDTH, Math.floor(i / SIGNATURE_WIDTH)]
  return [
    ...(x > 0 ? [i - 1] : []),
    ...(x < SIGNATURE_WIDTH - 1 ? [i + 1] : []),
    ...(y > 0 ? [i - SIGNATURE_WIDTH] : []),
    ...(y < SIGNATURE_HEIGHT - 1 ? [i + SIGNATURE_WIDTH] : []),
  ]
})

/**
 * Whether a hard cut leaves nothing of what was there, as when a recorder's scene changes or the next shot of an
 * edited recording begins: in a game that cuts, a camera beside it goes on.
 */
export function isSceneChange({ luma: before }: FrameSignature, { luma: after }: FrameSignature): boolean {
  const goesOn = Array.from({ length: CELLS }, (_, i) => Math.abs((before[i] ?? 0) - (after[i] ?? 0)) <= STAYS)
  // Plain grounds and skies are alike by chance; what is drawn on them is not.
  const tells = Array.from({ length: CELLS }, (_, i) => {
    const [a, b] = [laplacian(before, i), laplacian(after, i)]
    return Math.min(Math.abs(a), Math.abs(b)) >= MIN_EDGE && Math.abs(a - b) <= EDGE_STAYS
  })
  return !piecesOf(goesOn).some((piece) => piece.filter((i) => tells[i]).length >= MIN_CELLS)
}

/** How much brighter a cell is than those beside it, all together. */
function laplacian(luma: Uint8Array, i: number): number {
  return (BESIDE[i] ?? []).reduce((sum, beside) => sum + (luma[i] ?? 0) - (luma[beside] ?? 0), 0)
}

/** Cells that are in, by the pieces that hang together by their sides. */
function piecesOf(isIn: readonly boolean[]): number[][] {
  const seen = new Uint8Array(CELLS)
  const pieces: number[][] = []
  for (let start = 0; start < CELLS; start++) {
    if (seen[start] || !isIn[start]) continue
    seen[start] = 1
    const piece = [start]
    for (const i of piece)
      for (const beside of BESIDE[i] ?? [])
        if (!seen[beside] && isIn[beside]) {
          seen[beside] = 1
          piece.push(beside)
        }
    pieces.push(piece)
  }
  return pieces
}
