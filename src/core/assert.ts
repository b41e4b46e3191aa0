/** Throws when an invariant of our own is broken; never for a caller's or a user's mistake. */
export function assert(condition: unknown, message: string): asserts condition {
  if (!condition) throw new Error(`Broken invariant: ${message}`)
}

/** For the default branch of a switch over a union: the compiler refuses it while a case is missing. */
export function assertNever(value: never): never {
  throw new Error(`Broken invariant: unexpected ${JSON.stringify(value)}`)
}
