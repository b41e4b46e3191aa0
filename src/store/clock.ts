/** Now, as records keep it: ISO 8601 in UTC. */
export function nowStamp(): string {
  return new Date().toISOString()
}

/**
 * Now, or a moment after `earlier` when the clock stands before it: what is written later is never stamped as
 * earlier, or as the same.
 */
export function stampAfter(earlier: string): string {
  return new Date(Math.max(Date.now(), Date.parse(earlier) + 1)).toISOString()
}
