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

/** This much change of both kinds is another shot: a flash changes luma alone, a pan colours little. */
const CUT_COLOURS = 0.35
const CUT_MOTION = 0.08

/** Whether two pictures look like different shots. */
export function isCut(before: FrameSignature, after: FrameSignature): boolean {
  return colourDistance(before, after) > CUT_COLOURS && motionBetween(before, after) > CUT_MOTION
}

/** Shots in the same colours move at least by this much from one to the next, */
const JUMP_MOTION = 0.045
/** so many times as much from one frame to the next as the frames about them do. */
const JUMP_RATIO = 4
/** Where nothing moves at all, coding still makes frames differ. */
const NOISE = 0.004
/** So many frames about a cut are looked at. */
const ABOUT = 2
/** What is over in so many frames was a flash, and the shot goes on: */
const FLASH_FRAMES = 8
/** A cut is certain once so many frames after it are known. */
export const CERTAIN_AFTER = Math.max(ABOUT, FLASH_FRAMES)
/** then the frames before and after differ by no more than this share of what the flash did. */
const FLASH_SHARE = 1 / 3

/** Whether there may be a cut between two frames, however far apart. */
export function mayBeCut(before: FrameSignature, after: FrameSignature): boolean {
  return motionBetween(before, after) > JUMP_MOTION
}

/** Between moments of one shot pictures move, or change colour, no more than so many times as much as about them. */
const USUAL_MOTION = 1.6
const USUAL_COLOURS = 2
/** Less than this of a change of colours is nothing. */
const MIN_COLOURS = 0.1
/** So many moments before and after say what is usual. */
const NEIGHBOURS = 4

/**
 * Of moments close together, but not frame by frame, those between which and the moment before there may be a cut, by
 * their places.
 */
export function mayFollowCut(moments: readonly FrameSignature[]): number[] {
  const changes = (differ: (a: FrameSignature, b: FrameSignature) => number) =>
    moments.map((moment, i) => {
      const before = moments[i - 1]
      return before ? differ(before, moment) : 0
    })
  const [motion, colours] = [changes(motionBetween), changes(colourDistance)]
  const isUnusual = (row: readonly number[], i: number, times: number) => (row[i] ?? 0) >= times * usualAbout(row, i)
  return moments.flatMap((moment, i) => {
    const before = moments[i - 1]
    if (!before || !mayBeCut(before, moment)) return []
    const isWorth =
      isCut(before, moment) ||
      isUnusual(motion, i, USUAL_MOTION) ||
      ((colours[i] ?? 0) > MIN_COLOURS && isUnusual(colours, i, USUAL_COLOURS))
    return isWorth ? [i] : []
  })
}

/** The median of what is about a place in a row. */
function usualAbout(row: readonly number[], i: number): number {
  const about = [...row.slice(Math.max(1, i - NEIGHBOURS), i), ...row.slice(i + 1, i + 1 + NEIGHBOURS)]
  return about.sort((a, b) => a - b)[about.length >> 1] ?? 0
}

/** Of frames one after the other, those with which a shot begins, by their places. */
export function cutsAmong(frames: readonly FrameSignature[]): number[] {
  const motion = frames.map((frame, i) => between(frames[i - 1], frame))
  return frames.flatMap((frame, i) => {
    const before = frames[i - 1]
    return before && isJump(before, frame, motion, i) && !isFlash(frames, motion, i) ? [i] : []
  })
}

const between = (a: FrameSignature | undefined, b: FrameSignature | undefined): number =>
  a && b ? motionBetween(a, b) : 0

function isJump(before: FrameSignature, frame: FrameSignature, motion: readonly number[], i: number): boolean {
  if (isCut(before, frame)) return true
  const about = [...motion.slice(Math.max(0, i - ABOUT), i), ...motion.slice(i + 1, i + 1 + ABOUT)]
  return mayBeCut(before, frame) && (motion[i] ?? 0) >= JUMP_RATIO * Math.max(NOISE, ...about)
}

/** Whether what jumps at a frame soon jumps back, or has jumped there and comes back now. */
function isFlash(frames: readonly FrameSignature[], motion: readonly number[], i: number): boolean {
  const most = FLASH_SHARE * (motion[i] ?? 0)
  const later = frames.slice(i + 1, i + 1 + FLASH_FRAMES)
  const earlier = frames.slice(Math.max(0, i - 1 - FLASH_FRAMES), i - 1)
  return (
    later.some((frame) => between(frames[i - 1], frame) < most) ||
    earlier.some((frame) => between(frame, frames[i]) < most)
  )
}
