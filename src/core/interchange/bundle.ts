import { z } from 'zod'
import type { Edit } from '../model/edit'
import { recordingId } from '../model/ids'
import { micros } from '../model/record'
import type { SpeechOf } from '../sound/ducking'
import { readEnvelope } from './envelope'
import { readEdit } from './readEdit'

/** The one entry of a bundle that has to be there. */
export const BUNDLE_ENTRY = 'bundle.json'
/** What was kept in the rack and goes with it, as core/interchange/rackFile writes it. */
export const RACK_ENTRY = 'rack.brimble.json'

export const MAX_BUNDLE_JSON_BYTES = 64_000_000
export const MAX_ENTRIES = 2000
const MAX_EDITS = 200
const MAX_STRETCHES = 50_000

/**
 * A name inside a bundle: one folder, one file, of plain letters. Anything else is refused, and so is every way out
 * of the folder it is opened in.
 */
const entryName = z.string().regex(/^(media|files)\/[A-Za-z0-9_-]{1,80}\.[a-z0-9]{1,8}$/)

/** What lies in a bundle beside this list: the bytes of a recording, sound, picture or font, by its id. */
const carried = z.object({
  id: z.string().min(1).max(80),
  entry: entryName,
  sizeBytes: z.number().int().nonnegative(),
  /** Of a recording: whether only what is used of it is there, with handles, at its own times. */
  trimmed: z.boolean().default(false),
})
export type Carried = z.infer<typeof carried>

const stretch = z.object({ fromMicros: micros, toMicros: micros })

/** Where a recording holds speech, its own time: beds are lowered there, elsewhere as here. */
const spoken = z.object({ recordingId, stretches: z.array(stretch).max(MAX_STRETCHES) })

/** `bundle.json`, version 1. Edits are records of core/model, each of the version that it says; see docs/schemas. */
export const bundle = z.object({
  brimble: z.literal('bundle'),
  version: z.literal(1),
  edits: z.array(z.unknown()).min(1).max(MAX_EDITS),
  carried: z.array(carried).max(MAX_ENTRIES).default([]),
  speech: z.array(spoken).max(MAX_ENTRIES).default([]),
})

/** What a bundle says beside the bytes: alone it is a `.brimble.json` file, for whoever has the recordings. */
export function writeBundle(edits: readonly Edit[], speechOf: SpeechOf, parts: readonly Carried[] = []): string {
  const speech = [...speechOf].map(([recordingId, stretches]) => ({
    recordingId,
    stretches: stretches.slice(0, MAX_STRETCHES),
  }))
  return `${JSON.stringify({ brimble: 'bundle', version: 1, edits, carried: parts, speech })}\n`
}

export type BundleRefusal = 'not-json' | 'not-a-bundle' | 'newer-version' | 'bad-edit'
export type BundleRead =
  | { ok: true; edits: Edit[]; carried: Carried[]; speechOf: SpeechOf }
  | { ok: false; reason: BundleRefusal; detail: string }

/** Reads `bundle.json`. One edit that cannot be read refuses the whole: half a bundle would not be the same work. */
export function readBundle(text: string): BundleRead {
  const outside = readEnvelope(text, 'bundle', 1)
  if (!outside.ok) return outside
  const parsed = bundle.safeParse(outside.raw)
  if (!parsed.success)
    return { ok: false, reason: 'not-a-bundle', detail: parsed.error.issues[0]?.path.join('.') ?? '' }
  const edits: Edit[] = []
  for (const [n, value] of parsed.data.edits.entries()) {
    const read = readEdit(value)
    if (!read.ok && read.newer) return { ok: false, reason: 'newer-version', detail: `edit ${n + 1}` }
    if (!read.ok) return { ok: false, reason: 'bad-edit', detail: `edit ${n + 1}: ${read.problems[0] ?? ''}` }
    edits.push(read.edit)
  }
  return {
    ok: true,
    edits,
    carried: parsed.data.carried,
    speechOf: new Map(parsed.data.speech.map((s) => [s.recordingId, s.stretches])),
  }
}

/** A name for a carried file's entry: from its id, which may hold anything. */
export function entryFor(folder: 'media' | 'files', n: number, fileName: string): string {
  const ending = /\.([A-Za-z0-9]{1,8})$/.exec(fileName)?.[1]?.toLowerCase() ?? 'bin'
  return `${folder}/${n + 1}.${ending}`
}
