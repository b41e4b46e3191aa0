import { SIGNATURE_HEIGHT, SIGNATURE_WIDTH, type FrameSignature } from './frameSignature'

/** From one frame to the next what goes on changes by no more than this, levels of 8-bit luma. */
const STAYS = 5
/** A place is told from another by what is in it: so many levels of 8-bit luma from a cell to one of its neighbours. */
const MIN_CONTRAST = 4
/** So many such cells in one piece that goes on are no accident. */
const MIN_CELLS = 14

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
  const step = (luma: Uint8Array, i: number, beside: number) => (luma[i] ?? 0) - (luma[beside] ?? 0)
  const goesOn = Array.from({ length: CELLS }, (_, i) => Math.abs((before[i] ?? 0) - (after[i] ?? 0)) <= STAYS)
  // Plain grounds are alike by chance; what is drawn on them is not.
  const tells = Array.from({ length: CELLS }, (_, i) => {
    const steps = (BESIDE[i] ?? []).map((b): [number, number] => [step(before, i, b), step(after, i, b)])
    return (
      steps.every(([a, b]) => Math.abs(a - b) <= STAYS) &&
      steps.some(([a]) => Math.abs(a) >= MIN_CONTRAST) &&
      steps.some(([, b]) => Math.abs(b) >= MIN_CONTRAST)
    )
  })
  return !piecesOf(goesOn).some((piece) => piece.filter((i) => tells[i]).length >= MIN_CELLS)
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
