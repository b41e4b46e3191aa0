/** A set with something in it, or without it where it was there. */
export function toggled<T>(set: ReadonlySet<T>, item: T): ReadonlySet<T> {
  return set.has(item) ? new Set([...set].filter((x) => x !== item)) : new Set([...set, item])
}
