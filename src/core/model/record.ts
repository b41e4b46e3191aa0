import { z } from 'zod'

/** Integer microseconds; see core/time/micros. */
export const micros = z.number().int().min(0).max(Number.MAX_SAFE_INTEGER)

/** ISO 8601 in UTC. */
export const timestamp = z.iso.datetime()

/** What a person calls a thing: trimmed, one line, at most 200 characters. */
export const title = z
  .string()
  .transform((s) => s.replace(/\s+/g, ' ').trim().slice(0, 200))
  .pipe(z.string().min(1))

export const frameRate = z.object({
  num: z.number().int().positive().max(1_000_000),
  den: z.number().int().positive().max(100_000),
})

/** Fields that every stored record has. `deletedAt` is set while the record lies in the bin. */
export const recordBase = z.object({
  schemaVersion: z.literal(1),
  createdAt: timestamp,
  updatedAt: timestamp,
  deletedAt: timestamp.nullable().default(null),
})

/** The stamps of a record made at `now` (ISO 8601, UTC). */
export function newRecord(now: string) {
  return { schemaVersion: 1, createdAt: now, updatedAt: now, deletedAt: null } as const
}
