/** The weight of a child that takes `size` px of a stack's `length`: hundredths of it, and never nothing. */
export function weightOf(size: number, length: number): number {
  return Math.max(0.1, (size / Math.max(1, length)) * 100)
}
