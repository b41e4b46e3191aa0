import type { z } from 'zod'

/** Numbers that are put right in one record at most; what is wrong in more places is not worth keeping. */
const MAX_REPAIRS = 200

export type Repaired<T> = { ok: true; value: T; repairs: string[] } | { ok: false; problems: string[] }

/**
 * Checks data against a schema; numbers beyond their range are set to its nearest end, each of which is told as
 * “path: 9 became 1”. What else is wrong is refused. Works on a copy.
 */
export function repair<T>(schema: z.ZodType<T>, raw: unknown): Repaired<T> {
  const value = structuredClone(raw)
  const repairs: string[] = []
  for (;;) {
    const parsed = schema.safeParse(value)
    if (parsed.success) return { ok: true, value: parsed.data, repairs }
    const told = parsed.error.issues.map((issue) => nearestEnd(value, issue))
    if (told.some((t) => t === null) || repairs.length + told.length > MAX_REPAIRS)
      return { ok: false, problems: parsed.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`) }
    repairs.push(...told.flatMap((t) => t ?? []))
  }
}

/** Sets the number that an issue is about to the end of its range, in place; null when that is not what is wrong. */
function nearestEnd(root: unknown, issue: z.core.$ZodIssue): string | null {
  if (issue.code !== 'too_small' && issue.code !== 'too_big') return null
  if (issue.origin !== 'number' && issue.origin !== 'int') return null
  const end = Number(issue.code === 'too_small' ? issue.minimum : issue.maximum)
  const step = issue.origin === 'int' ? 1 : 0.001
  const inwards = issue.code === 'too_small' ? step : -step
  const to = issue.inclusive !== false ? end : end + inwards
  const holder = issue.path
    .slice(0, -1)
    .reduce<unknown>((at, key) => (at as Record<PropertyKey, unknown> | null)?.[key], root) as
    Record<PropertyKey, unknown> | undefined
  const key = issue.path.at(-1)
  if (!holder || key === undefined || typeof holder[key] !== 'number') return null
  const was = holder[key]
  holder[key] = to
  return `${issue.path.join('.')}: ${was} became ${to}`
}
