import { MICROS_PER_SECOND, type Micros } from './micros'

/** Frames per second as a ratio of positive integers: 60 is {60, 1}, "29.97" is {30000, 1001}. */
export interface FrameRate {
  num: number
  den: number
}

/** The rates in use by cameras, broadcasters and screen recorders. */
export const STANDARD_FRAME_RATES: readonly FrameRate[] = [
  { num: 24000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 30, den: 1 },
  { num: 48, den: 1 },
  { num: 50, den: 1 },
  { num: 60000, den: 1001 },
  { num: 60, den: 1 },
  { num: 120, den: 1 },
]

/** Output time at which frame `frame` (0, 1, …) starts: round(n · den · 10⁶ / num). */
export function frameStartMicros(frame: number, rate: FrameRate): Micros {
  return Math.round((frame * rate.den * MICROS_PER_SECOND) / rate.num)
}

/** The frame on screen at `t`: the largest n whose start is not after `t` (negative before 0). */
export function frameAtMicros(t: Micros, rate: FrameRate): number {
  const guess = Math.floor((t * rate.num) / (rate.den * MICROS_PER_SECOND))
  return frameStartMicros(guess + 1, rate) <= t ? guess + 1 : guess
}

/** The frame start nearest to `t`, for a recording whose first frame starts at `firstFrameMicros`. */
export function snapToFrame(t: Micros, rate: FrameRate, firstFrameMicros: Micros = 0): Micros {
  const local = t - firstFrameMicros
  const before = frameAtMicros(local, rate)
  const a = frameStartMicros(before, rate)
  const b = frameStartMicros(before + 1, rate)
  return firstFrameMicros + (local - a <= b - local ? a : b)
}

/** How many frames a stretch of `length` fills, to the nearest frame, at least one. */
export function frameCount(length: Micros, rate: FrameRate): number {
  return Math.max(1, Math.round((length * rate.num) / (rate.den * MICROS_PER_SECOND)))
}

export function framesPerSecond(rate: FrameRate): number {
  return rate.num / rate.den
}

/**
 * The standard rate within 0.05 % of `fps`, else `fps` itself to a thousandth. Throws RangeError unless 0 < fps ≤
 * 1000.
 */
export function toFrameRate(fps: number): FrameRate {
  if (!(fps > 0 && fps <= 1000)) throw new RangeError(`fps: ${fps} is not between 0 and 1000`)
  const near = STANDARD_FRAME_RATES.reduce((best, rate) =>
    Math.abs(framesPerSecond(rate) - fps) < Math.abs(framesPerSecond(best) - fps) ? rate : best,
  )
  if (Math.abs(framesPerSecond(near) - fps) / fps < 0.0005) return near
  return { num: Math.round(fps * 1000), den: 1000 }
}
