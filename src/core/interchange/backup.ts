import { z } from 'zod'
import { readRecord, upgraded, type RecordKind, type RecordOf } from '../model/migrate'
import { readEnvelope } from './envelope'

/** The one entry of a backup that has to be there. */
export const BACKUP_ENTRY = 'backup.json'
export const MAX_BACKUP_JSON_BYTES = 256_000_000
/** Recordings, files of the rack and finished files together. */
export const MAX_BACKUP_ENTRIES = 50_000

/** Every kind of record, each after those it refers to. */
export const BACKUP_KINDS = [
  'recording',
  'soundFile',
  'imageFile',
  'fontFile',
  'brand',
  'outlet',
  'setup',
  'layout',
  'recipe',
  'highlight',
  'version',
  'spotting',
  'renderPreset',
  'render',
  'post',
] as const satisfies readonly RecordKind[]

export type BackupRecords = { [K in RecordKind]: RecordOf<K>[] }

/**
 * What lies in a backup beside its list. *file*: bytes of a recording, sound, picture or font, by its id; *render*: a
 * finished file, or what was made beside it; *text*: the captions that came with a recording.
 */
const backedUp = z.object({
  kind: z.enum(['file', 'render', 'text']),
  id: z.string().min(1).max(120),
  fileName: z.string().max(1000),
  type: z.string().max(200),
  entry: z.string().regex(/^files\/\d{1,6}\.[a-z0-9]{1,8}$/),
  sizeBytes: z.number().int().nonnegative(),
})
export type BackedUp = z.infer<typeof backedUp>

/** `backup.json`, version 1. Records are those of core/model, each of the version that it says. */
export const backup = z.object({
  brimble: z.literal('backup'),
  version: z.literal(1),
  madeAt: z.iso.datetime(),
  records: z.partialRecord(z.enum(BACKUP_KINDS), z.array(z.unknown()).max(200_000)),
  carried: z.array(backedUp).max(MAX_BACKUP_ENTRIES).default([]),
})

export function writeBackup(madeAt: string, records: BackupRecords, carried: readonly BackedUp[]): string {
  return `${JSON.stringify({ brimble: 'backup', version: 1, madeAt, records, carried })}\n`
}

export type BackupRefusal = 'not-json' | 'not-a-backup' | 'newer-version'
export type BackupRead =
  | {
      ok: true
      madeAt: string
      records: BackupRecords
      carried: BackedUp[]
      /** How many records could not be read, and are left out. */ unread: number
    }
  | { ok: false; reason: BackupRefusal; detail: string }

/**
 * Reads `backup.json`. A record that is damaged is left out and counted: the others are worth having back. One of a
 * newer version refuses the whole.
 */
export function readBackup(text: string): BackupRead {
  const outside = readEnvelope(text, 'backup', 1)
  if (!outside.ok) return outside
  const parsed = backup.safeParse(outside.raw)
  if (!parsed.success)
    return { ok: false, reason: 'not-a-backup', detail: parsed.error.issues[0]?.path.join('.') ?? '' }
  const records = Object.fromEntries(BACKUP_KINDS.map((kind) => [kind, []])) as unknown as BackupRecords
  let unread = 0
  for (const kind of BACKUP_KINDS)
    for (const value of parsed.data.records[kind] ?? []) {
      const read = readRecord(kind, value)
      if (read.ok) (records[kind] as unknown[]).push(read.record)
      else {
        const up = upgraded(kind, value)
        if (!up.ok && up.reason === 'newer-version') return { ok: false, reason: 'newer-version', detail: kind }
        unread++
      }
    }
  return { ok: true, madeAt: parsed.data.madeAt, records, carried: parsed.data.carried, unread }
}
