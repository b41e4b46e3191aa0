/** Now, as records keep it: ISO 8601 in UTC. */
export function nowStamp(): string {
  return new Date().toISOString()
}

/** A new id of any kind of record. */
export function newId<T extends string>(): T {
  return crypto.randomUUID() as string as T
}
