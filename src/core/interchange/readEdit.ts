import { z } from 'zod'
import { edit as editSchema, type Edit } from '../model/edit'
import { upgraded, type RecordKind } from '../model/migrate'
import { keptStretches } from '../time/timeMap'

const KINDS = {
  setups: 'setup',
  layouts: 'layout',
  recordings: 'recording',
  soundFiles: 'soundFile',
  imageFiles: 'imageFile',
  fontFiles: 'fontFile',
} as const satisfies Partial<Record<keyof Edit, RecordKind>>

/** More records of a kind than any edit has. */
const MAX_RECORDS = 2000

const list = z.array(z.unknown()).max(MAX_RECORDS).default([])
const raw = z.object({
  highlight: z.unknown(),
  setups: list,
  layouts: list,
  recordings: list,
  soundFiles: list,
  imageFiles: list,
  fontFiles: list,
})

/** `newer`: whether it is a newer Brimble's, which an update would read. */
export type EditRead = { ok: true; edit: Edit } | { ok: false; newer: boolean; problems: string[] }

/**
 * An edit out of a file, each of its records brought up to date, checked as a whole: nothing that it refers to may be
 * missing from it, no two things of a list may have one id, and of each passage something must be left.
 */
export function readEdit(value: unknown): EditRead {
  const parsed = raw.safeParse(value)
  if (!parsed.success) return { ok: false, newer: false, problems: ['not an edit'] }
  let newer = false
  const problems: string[] = []
  const current = (kind: RecordKind, record: unknown) => {
    const up = upgraded(kind, record)
    if (!up.ok && up.reason === 'newer-version') newer = true
    if (!up.ok) problems.push(...up.problems.map((p) => `${kind}: ${p}`))
    return up.ok ? up.record : null
  }
  const records = Object.entries(KINDS).map(([field, kind]) => [
    field,
    parsed.data[field as keyof typeof KINDS].map((r) => current(kind, r)),
  ])
  const made = editSchema.safeParse({
    ...Object.fromEntries(records),
    highlight: current('highlight', parsed.data.highlight),
  })
  if (problems.length > 0) return { ok: false, newer, problems }
  if (!made.success)
    return {
      ok: false,
      newer,
      problems: made.error.issues.slice(0, 10).map((i) => `${i.path.join('.')} is not as it should be`),
    }
  const faults = [...missingFrom(made.data), ...doubledIn(made.data), ...emptyIn(made.data)]
  return faults.length > 0 ? { ok: false, newer, problems: faults } : { ok: true, edit: made.data }
}

function missingFrom({ highlight, setups, layouts, recordings }: Edit): string[] {
  const has = (all: readonly { id: string }[], id: string) => all.some((r) => r.id === id)
  return highlight.passages.flatMap((p, n) => [
    ...(has(setups, p.setupId) ? [] : [`passage ${n + 1}: its setup is not in the file`]),
    ...(has(layouts, p.layoutId) ? [] : [`passage ${n + 1}: its layout is not in the file`]),
    ...(has(recordings, p.recordingId) ? [] : [`passage ${n + 1}: its recording is not in the file`]),
  ])
}

/** Lists anywhere in `value` of which two members have one id. */
function doubledIn(value: unknown, path: string[] = []): string[] {
  if (!value || typeof value !== 'object') return []
  const inside = Object.entries(value).flatMap(([key, of]) => doubledIn(of, [...path, key]))
  if (!Array.isArray(value)) return inside
  const ids = value.flatMap((of: unknown) =>
    of && typeof of === 'object' && 'id' in of && typeof of.id === 'string' ? [of.id] : [],
  )
  return new Set(ids).size < ids.length ? [`${path.join('.')}: two have the same id`, ...inside] : inside
}

function emptyIn({ highlight }: Edit): string[] {
  return highlight.passages.flatMap((p, n) =>
    keptStretches(p).length > 0 ? [] : [`passage ${n + 1}: all of it is struck out`],
  )
}
