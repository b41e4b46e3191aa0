import { areaOf, intersection, unionOf, type Rect } from '@/core/geometry/rect'
import { setupOf, type Edit } from '@/core/model/edit'
import type { RegionId, SetupId } from '@/core/model/ids'
import type { Host } from './command'

const KINDS = ['recordings', 'soundFiles', 'imageFiles', 'fontFiles', 'setups', 'layouts'] as const

/** Records that something done to an edit will refer to. */
export type Records = Partial<Pick<Edit, (typeof KINDS)[number]>>

/** Adds records that an edit lacks. Not a step of its history: they stay when what needed them is undone. */
export function addRecords(host: Host, records: Records): void {
  host.extend((draft) => {
    for (const kind of KINDS) {
      const there: { id: string }[] = draft[kind]
      there.push(...(records[kind] ?? []).filter((added) => there.every((r) => r.id !== added.id)))
    }
  })
}

/** So much of a head beyond what is known of it is not worth another arrangement. */
const MAX_BEYOND = 0.05

/**
 * Takes in where heads were seen in a setup's regions, fractions of the frame, and gives what was news of that. What
 * is known grows by what was seen beyond it; a shorter look takes nothing back.
 */
export function noteHeads(
  host: Host,
  setupId: SetupId,
  heads: ReadonlyMap<RegionId, Rect>,
): ReadonlyMap<RegionId, Rect> {
  const shareIn = (rect: Rect, other: Rect | undefined) => {
    const both = other && intersection(rect, other)
    return both ? areaOf(both) / areaOf(rect) : 0
  }
  const news = new Map<RegionId, Rect>()
  for (const { id, head: known, bounds } of setupOf(host.value, setupId).regions) {
    const head = heads.get(id)
    if (!head || shareIn(head, known) > 1 - MAX_BEYOND) continue
    // What was known of another place, before the region was moved, is nothing to go by.
    news.set(id, known && shareIn(known, bounds) > 0.5 ? unionOf(known, head) : head)
  }
  if (news.size > 0)
    host.learn((draft) => {
      for (const region of setupOf(draft, setupId).regions) {
        const head = news.get(region.id)
        if (head) region.head = head
      }
    })
  return news
}
