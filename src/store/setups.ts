import type { Rect } from '@/core/geometry/rect'
import type { HighlightId, RegionId, SetupId } from '@/core/model/ids'
import { newRecord } from '@/core/model/record'
import { newSetup, type Setup } from '@/core/model/setup'
import { newId } from '@/core/model/ids'
import { followSetup } from '@/edit/regions'
import { nowStamp } from './clock'
import { database } from './database'
import { readAll } from './readAll'
import { editSession, loadEdit } from './highlights'

/** What a kept setup takes over from a working copy. */
export type SetupContent = Pick<Setup, 'name' | 'regions' | 'tags' | 'fingerprint'>

/** Every kept setup that is not in the bin, by name. */
export async function keptSetups(): Promise<Setup[]> {
  const all = await database()
    .setups.filter((s) => s.ownedBy === null && !s.deletedAt)
    .toArray()
  return readAll('setup', all).sort((a, b) => a.name.localeCompare(b.name))
}

export async function keepSetup(content: SetupContent): Promise<Setup> {
  const setup = newSetup({ ...newRecord(nowStamp()), id: newId<SetupId>(), ownedBy: null, ...content })
  await database().setups.add(setup)
  return setup
}

export async function changeSetup(id: SetupId, change: Partial<SetupContent>): Promise<void> {
  await database().setups.update(id, { ...change, updatedAt: nowStamp() })
}

/** Keeps where heads were seen in a setup's regions. Nobody's edit: what uses the setup is no newer for it. */
export async function keepHeads(id: SetupId, heads: ReadonlyMap<RegionId, Rect>): Promise<void> {
  await database()
    .setups.where('id')
    .equals(id)
    .modify(({ regions }) => {
      for (const region of regions) {
        const head = heads.get(region.id)
        if (head) region.head = head
      }
    })
}

/**
 * Lets highlights that are based on a setup follow what it has become: one step each, which can be undone there.
 * Gives how many did.
 */
export async function letFollow(kept: Setup, highlights: readonly HighlightId[]): Promise<number> {
  let followed = 0
  for (const id of highlights) {
    const loaded = await loadEdit(id)
    if (!loaded.ok) continue
    const session = editSession(loaded)
    followSetup(session, { kept })
    await session.flush()
    if (session.store.getState().saving === 'saved') followed++
  }
  return followed
}

/** Puts a kept setup into the bin, or takes it out again. Highlights keep their own copies. */
export async function binSetup(id: SetupId, deleted: boolean): Promise<void> {
  await database().setups.update(id, { deletedAt: deleted ? nowStamp() : null })
}

export interface SetupUse {
  highlightId: HighlightId
  name: string
}

/** Which highlights are based on each kept setup. */
export async function setupUses(): Promise<Map<SetupId, SetupUse[]>> {
  const db = database()
  const uses = new Map<SetupId, SetupUse[]>()
  const copies = await db.setups.filter((s) => s.ownedBy !== null && Boolean(s.basedOn)).toArray()
  const highlights = await db.highlights.bulkGet(copies.map((s) => s.ownedBy as HighlightId))
  copies.forEach(({ basedOn, id }, i) => {
    const highlight = highlights[i]
    if (!basedOn || !highlight || highlight.deletedAt || !highlight.passages.some((p) => p.setupId === id)) return
    uses.set(basedOn, [...(uses.get(basedOn) ?? []), { highlightId: highlight.id, name: highlight.name }])
  })
  return uses
}
