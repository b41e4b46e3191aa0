import { z } from 'zod'
import { readRecord } from '../model/migrate'
import type { SetupId } from '../model/ids'
import type { Setup } from '../model/setup'

/** Larger files are not setups. */
export const MOST_SETUP_FILE_BYTES = 8_000_000

const MOST_SETUPS = 500

/** A `.brimble.json` file of setups, as written; each of `setups` is a record of the version that it says. */
const setupFile = z.object({ brimble: z.literal('setups'), version: z.literal(1), setups: z.array(z.unknown()).min(1).max(MOST_SETUPS) })

export function writeSetupFile(setups: readonly Setup[]): string {
  return `${JSON.stringify({ brimble: 'setups', version: 1, setups: setups.map((s) => ({ ...s, ownedBy: null, basedOn: null, deletedAt: null })) }, null, 2)}\n`
}

export type SetupFileResult = { ok: true; setups: Setup[]; problems: { index: number; reasons: string[] }[] } | { ok: false; reason: 'too-large' | 'not-json' | 'not-setups' }

/** Reads a file that {@link writeSetupFile} wrote, here or elsewhere. What is not a setup in it is told by its place, the rest is given. */
export function readSetupFile(text: string): SetupFileResult {
  if (text.length > MOST_SETUP_FILE_BYTES) return { ok: false, reason: 'too-large' }
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch {
    return { ok: false, reason: 'not-json' }
  }
  const file = setupFile.safeParse(raw)
  if (!file.success) return { ok: false, reason: 'not-setups' }
  const read = file.data.setups.map((s) => readRecord('setup', s))
  return {
    ok: true,
    setups: read.flatMap((r) => (r.ok ? [{ ...r.record, ownedBy: null, basedOn: null, deletedAt: null }] : [])),
    problems: read.flatMap((r, index) => (r.ok ? [] : [{ index, reasons: r.problems }])),
  }
}

export interface Merge {
  /** To be stored: new ones as they are; one whose id is taken by another setup gets an id of its own, one whose name is taken a number. */
  add: Setup[]
  /** Names of those that are there already, just the same. */
  same: string[]
}

/** How setups from a file come to those that are there, without anything being written over. */
export function mergeSetups(there: readonly Setup[], incoming: readonly Setup[], newId: () => SetupId): Merge {
  const merge: Merge = { add: [], same: [] }
  for (const setup of incoming) {
    const all = [...there, ...merge.add]
    const known = all.find((s) => s.id === setup.id)
    if (known && contentOf(known) === contentOf(setup)) merge.same.push(setup.name)
    else merge.add.push({ ...setup, id: known ? newId() : setup.id, name: freeName(setup.name, all.map((s) => s.name)) })
  }
  return merge
}

/** `name`, or with the first number that makes it unlike all of `taken`. */
export function freeName(name: string, taken: readonly string[]): string {
  if (!taken.includes(name)) return name
  const bare = name.replace(/ \(\d+\)$/, '').slice(0, 190)
  for (let n = 2; ; n++) if (!taken.includes(`${bare} (${n})`)) return `${bare} (${n})`
}

const contentOf = ({ name, regions, tags }: Setup) => JSON.stringify({ name, regions, tags })
