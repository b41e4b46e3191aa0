import type { Micros } from '../time/micros'

/** A time as WebVTT writes it: hours, minutes, seconds, milliseconds. */
export function formatVttTime(t: Micros): string {
  const ms = Math.round(t / 1000)
  const pad = (n: number, digits = 2) => String(n).padStart(digits, '0')
  return `${pad(Math.floor(ms / 3_600_000))}:${pad(Math.floor(ms / 60_000) % 60)}:${pad(Math.floor(ms / 1000) % 60)}.${pad(ms % 1000, 3)}`
}

/** Text that means nothing but itself in a WebVTT cue. */
export const escapeVtt = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;')
