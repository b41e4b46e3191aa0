/** Pictures are compared at this size: small enough to be quick, large enough for a HUD to be a few pixels. */
export const SIGNATURE_WIDTH = 64
export const SIGNATURE_HEIGHT = 36

const PIXELS = SIGNATURE_WIDTH * SIGNATURE_HEIGHT

/** Steps of each colour in the histogram. */
const BINS = 4

/**
 * What is kept of a picture to compare it with others: luma, row by row, and how its pixels spread over 64 colours
 * (shares, summing to 1).
 */
export interface FrameSignature {
  luma: Uint8Array
  colours: Float32Array
}

/** The signature of a picture of 64 × 36 RGBA pixels. Throws RangeError for another length. */
export function signatureOf(rgba: Uint8ClampedArray | Uint8Array): FrameSignature {
  if (rgba.length !== PIXELS * 4) throw new RangeError(`rgba.length: ${rgba.length} is not ${PIXELS * 4}`)
  const luma = new Uint8Array(PIXELS)
  const colours = new Float32Array(BINS ** 3)
  for (let i = 0; i < PIXELS; i++) {
    const [r = 0, g = 0, b = 0] = [rgba[i * 4], rgba[i * 4 + 1], rgba[i * 4 + 2]]
    luma[i] = Math.round(0.2126 * r + 0.7152 * g + 0.0722 * b)
    const bin = (r >> 6) * BINS * BINS + (g >> 6) * BINS + (b >> 6)
    colours[bin] = (colours[bin] ?? 0) + 1 / PIXELS
  }
  return { luma, colours }
}

/** Mean change of luma from one picture to another, 0..1 of full scale. */
export function motionBetween(a: FrameSignature, b: FrameSignature): number {
  let sum = 0
  for (let i = 0; i < PIXELS; i++) sum += Math.abs((a.luma[i] ?? 0) - (b.luma[i] ?? 0))
  return sum / PIXELS / 255
}

/** How differently two pictures are coloured: 0 the same, 1 nothing in common. */
export function colourDistance(a: FrameSignature, b: FrameSignature): number {
  let sum = 0
  for (let i = 0; i < a.colours.length; i++) sum += Math.abs((a.colours[i] ?? 0) - (b.colours[i] ?? 0))
  return sum / 2
}

/**
 * Between two neighbouring frames, this much change of both kinds is another shot: a flash changes luma alone, a pan
 * colours little.
 */
const CUT_COLOURS = 0.35
const CUT_MOTION = 0.08

export function isCut(before: FrameSignature, after: FrameSignature): boolean {
  return colourDistance(before, after) > CUT_COLOURS && motionBetween(before, after) > CUT_MOTION
}
