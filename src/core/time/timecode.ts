import { frameStartMicros, frameAtMicros, framesPerSecond, type FrameRate } from './frameRate'
import type { Micros } from './micros'

/** Frames counted in a second of timecode: 30 for 29.97, and one at least. */
function nominalRate(rate: FrameRate): number {
  return Math.max(1, Math.round(framesPerSecond(rate)))
}

/**
 * Frame numbers left out at each minute but every tenth, in drop-frame counting (SMPTE ST 12-1): only 29.97 and 59.94
 * have it.
 */
function droppedPerMinute(rate: FrameRate): number {
  const nominal = nominalRate(rate)
  return rate.den !== 1 && nominal % 30 === 0 ? (nominal / 30) * 2 : 0
}

/**
 * `HH:MM:SS:FF`, drop-frame where the last separator is `;` or `drop` says so → time from 00:00:00:00; null when it
 * is no timecode.
 */
export function parseTimecode(text: string, rate: FrameRate, drop = false): Micros | null {
  const match = /^(\d{1,2}):([0-5]\d):([0-5]\d)([:;.])(\d{2,3})$/.exec(text.trim())
  if (!match) return null
  const [, h = '', m = '', s = '', separator, f = ''] = match
  const nominal = nominalRate(rate)
  if (Number(f) >= nominal) return null
  const minutes = Number(h) * 60 + Number(m)
  const counted = (minutes * 60 + Number(s)) * nominal + Number(f)
  const dropped = drop || separator === ';' ? droppedPerMinute(rate) * (minutes - Math.floor(minutes / 10)) : 0
  return frameStartMicros(counted - dropped, rate)
}

/** The timecode of the frame on screen at `t`, in drop-frame counting (`;`) where `drop` is set and the rate has it. */
export function formatTimecode(t: Micros, rate: FrameRate, drop = false): string {
  return frameTimecode(frameAtMicros(t, rate), rate, drop)
}

/**
 * Frames that timecode counts up to an hour: at fractional rates an hour of timecode is a little longer than one of
 * the clock.
 */
export const framesInHour = (rate: FrameRate): number => 3600 * nominalRate(rate)

/** The timecode of a frame by its number from 00:00:00:00. */
export function frameTimecode(number: number, rate: FrameRate, drop = false): string {
  const nominal = nominalRate(rate)
  const perMinute = drop ? droppedPerMinute(rate) : 0
  const frame = withDropped(number, nominal, perMinute)
  const two = (n: number) => String(n).padStart(2, '0')
  const seconds = Math.floor(frame / nominal)
  return `${two(Math.floor(seconds / 3600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}${perMinute > 0 ? ';' : ':'}${two(frame % nominal)}`
}

function withDropped(frame: number, nominal: number, perMinute: number): number {
  if (perMinute === 0) return frame
  const inTenMinutes = nominal * 600 - perMinute * 9
  const inMinute = nominal * 60 - perMinute
  const tens = Math.floor(frame / inTenMinutes)
  const rest = frame % inTenMinutes
  const minutes = rest < nominal * 60 ? 0 : 1 + Math.floor((rest - nominal * 60) / inMinute)
  return frame + perMinute * (tens * 9 + minutes)
}
