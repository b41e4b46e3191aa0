/** Both ends included. */
export interface Range {
  least: number
  most: number
}

/** The number of a range that is nearest to `value`. */
export const clamp = (value: number, { least, most }: Range): number => Math.min(most, Math.max(least, value))
