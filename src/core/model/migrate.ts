import type { z } from 'zod'
import { soundFile } from './bed'
import { brand } from './brand'
import { fontFile } from './fontFile'
import { highlight } from './highlight'
import { imageFile } from './imageFile'
import { layout } from './layout'
import { outlet } from './outlet'
import { post } from './post'
import { recipe } from './recipe'
import { recording } from './recording'
import { render } from './render'
import { renderPreset } from './renderPreset'
import { setup } from './setup'
import { spotting } from './spotting'
import { version } from './version'

const schemas = {
  recording,
  setup,
  layout,
  highlight,
  render,
  soundFile,
  imageFile,
  fontFile,
  spotting,
  version,
  brand,
  outlet,
  recipe,
  renderPreset,
  post,
} as const

export type RecordKind = keyof typeof schemas
export type RecordOf<K extends RecordKind> = z.infer<(typeof schemas)[K]>

type Step = (old: Record<string, unknown>) => Record<string, unknown>

/** `chains[kind][n]` turns version n + 1 into version n + 2. Empty while every record is at version 1. */
const chains: Record<RecordKind, readonly Step[]> = {
  recording: [],
  setup: [],
  layout: [],
  highlight: [],
  render: [],
  soundFile: [],
  imageFile: [],
  fontFile: [],
  spotting: [],
  version: [],
  brand: [],
  outlet: [],
  recipe: [],
  renderPreset: [],
  post: [],
}

export type ReadResult<K extends RecordKind> =
  { ok: true; record: RecordOf<K> } | { ok: false; reason: 'newer-version' | 'not-a-record'; problems: string[] }

/** The version that records of this kind are written in. */
export function currentVersion(kind: RecordKind): number {
  return chains[kind].length + 1
}

export function schemaOf<K extends RecordKind>(kind: K): z.ZodType<RecordOf<K>> {
  return schemas[kind] as unknown as z.ZodType<RecordOf<K>>
}

export type Upgraded =
  | { ok: true; record: Record<string, unknown> }
  | { ok: false; reason: 'newer-version' | 'not-a-record'; problems: string[] }

/**
 * A stored or imported record in the current version's form, not checked yet: itself when it is of that version, else
 * a copy. Never throws.
 */
export function upgraded(kind: RecordKind, raw: unknown): Upgraded {
  const version = (raw as { schemaVersion?: unknown } | null)?.schemaVersion
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return { ok: false, reason: 'not-a-record', problems: ['it does not say of which version it is'] }
  if (version > currentVersion(kind))
    return {
      ok: false,
      reason: 'newer-version',
      problems: [
        `made by a newer Brimble (version ${version}; this one knows ${currentVersion(kind)}): update this one`,
      ],
    }
  const steps = chains[kind].slice(version - 1)
  const old = (steps.length > 0 ? structuredClone(raw) : raw) as Record<string, unknown>
  return { ok: true, record: steps.reduce((record, step) => step(record), old) }
}

/** Brings a stored or imported record up to the current version and checks it. Leaves `raw` as it is; never throws. */
export function readRecord<K extends RecordKind>(kind: K, raw: unknown): ReadResult<K> {
  const up = upgraded(kind, raw)
  if (!up.ok) return up
  const parsed = schemaOf(kind).safeParse(up.record)
  if (parsed.success) return { ok: true, record: parsed.data }
  return {
    ok: false,
    reason: 'not-a-record',
    problems: parsed.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`),
  }
}
