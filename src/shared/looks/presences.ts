import type { Measurements } from '@/core/findings/findings'
import { recordingOf, setupOf, type Edit } from '@/core/model/edit'
import type { Passage } from '@/core/model/passage'
import { showsSomebody } from '@/core/model/region'
import type { Setup } from '@/core/model/setup'
import { timeMapOf } from '@/core/time/timeMap'
import { boundsByPassage, boundsToHold, planAlong, presenceIn, seeAlong, type Along } from './along'

/**
 * When somebody is not inside the regions of a setup, as it was seen along the passages that use it; nothing is known
 * before the end of a look.
 */
export function presencesIn(seen: Along | null, setup: Setup, passages: readonly Passage[]): Measurements['presence'] {
  const known = new Map<
    string,
    { outside: { fromMicros: number; toMicros: number }[]; holding: ReturnType<typeof boundsToHold> }
  >()
  if (seen?.state !== 'done' || setup.isGuess) return known
  for (const region of setup.regions.filter((r) => showsSomebody(r.role))) {
    const { presence, subjects } = presenceIn(seen, region, boundsByPassage(passages, region))
    // Where hardly a face was found, that nothing moves says little about whether somebody is there.
    if (presence && subjects.by === 'face')
      known.set(region.id, { outside: presence.outside, holding: boundsToHold(region.bounds, presence) })
  }
  return known
}

/** The same for a whole edit, looked along now, one recording and setup after the other. */
export async function presencesOf(edit: Edit, files: ReadonlyMap<string, Blob>): Promise<Measurements['presence']> {
  const map = timeMapOf(edit.highlight)
  const { passages } = edit.highlight
  const known = new Map<string, NonNullable<ReturnType<Measurements['presence']['get']>>>()
  for (const passage of new Map(passages.map((p) => [`${p.recordingId} ${p.setupId}`, p])).values()) {
    const setup = setupOf(edit, passage.setupId)
    const recording = recordingOf(edit, passage.recordingId)
    const file = files.get(recording.id)
    const plan = planAlong(map, recording, passage, setup.regions, setup.isGuess, new Set())
    if (!file || plan.areas.length === 0) continue
    for (const [id, presence] of presencesIn(await seeAlong(plan, file, { withPictures: false }), setup, passages))
      known.set(id, presence)
  }
  return known
}
