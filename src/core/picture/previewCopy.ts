import type { Size } from '../geometry/rect'
import type { Recording } from '../model/recording'
import { framesPerSecond } from '../time/frameRate'

/** The shorter side of a preview copy, px. */
const SHORT_SIDE = 540

/** Frames a second that a preview copy has at most, a little over 30 for rates that are told inexactly. */
export const MOST_FRAMES = 31

/** Making a copy pays where the recording has so many times its pixels a second. */
const WORTH = 1.5

const BITS_PER_PIXEL = 0.18

/** How a recording is copied for looking: every `every`th of its frames, `frameRate` of them a second. */
export interface CopyForm extends Size {
  every: number
  frameRate: number
  bitrate: number
}

/** Null where the recording is small enough to be read itself. */
export function copyFormOf({ video }: Pick<Recording, 'video'>): CopyForm | null {
  const share = Math.min(1, SHORT_SIDE / Math.min(video.width, video.height))
  const even = (side: number) => Math.max(2, 2 * Math.round((side * share) / 2))
  const [width, height] = [even(video.width), even(video.height)]
  const full = framesPerSecond(video.frameRate)
  const every = Math.max(1, Math.ceil(full / MOST_FRAMES))
  const frameRate = full / every
  if (video.width * video.height * full < WORTH * width * height * frameRate) return null
  return { width, height, every, frameRate, bitrate: Math.round(BITS_PER_PIXEL * width * height * frameRate) }
}
