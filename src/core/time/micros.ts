/**
 * Integer microseconds on one of two clocks that are never mixed: *recording time* (from the start of a recording) or
 * *output time* (from the start of a highlight).
 */
export type Micros = number

export const MICROS_PER_SECOND = 1_000_000

/** Seconds (any real number) to the nearest microsecond. */
export function toMicros(seconds: number): Micros {
  return Math.round(seconds * MICROS_PER_SECOND)
}

export function toSeconds(micros: Micros): number {
  return micros / MICROS_PER_SECOND
}

export function clampMicros(t: Micros, from: Micros, to: Micros): Micros {
  return Math.min(Math.max(t, from), to)
}
