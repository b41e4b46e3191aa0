import type { Micros } from '../time/micros'

/** A stretch of the output clock, end-exclusive; null stands for its start or end. */
export interface OnFor {
  fromMicros: Micros | null
  toMicros: Micros | null
}

/** Whether something is on at output time `t` of a highlight that is `lengthMicros` long. */
export function isOnAt({ fromMicros, toMicros }: OnFor, t: Micros, lengthMicros: Micros): boolean {
  return t >= (fromMicros ?? 0) && t < (toMicros ?? lengthMicros)
}
