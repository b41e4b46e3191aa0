import { areaOf, intersection, unionOf, type Rect } from '@/core/geometry/rect'
import type { Passage } from '@/core/model/passage'
import { showsSomebody, type Region } from '@/core/model/region'
import type { Setup } from '@/core/model/setup'
import { boundsByPassage, presenceIn, type Along } from './along'

/** A face that was found in fewer of the moments may be somebody else's. */
const MIN_FOUND = 0.3

/**
 * Where the heads of a setup's people were, all along the passages that use it; fractions of the frame. Nothing is
 * known before the end of a look, nor of regions that lie elsewhere in some passage.
 */
export function headsIn(
  seen: Along | null,
  setup: Setup,
  passages: readonly Passage[],
): ReadonlyMap<Region['id'], Rect> {
  const heads = new Map<Region['id'], Rect>()
  if (seen?.state !== 'done' || setup.isGuess) return heads
  for (const region of setup.regions.filter((r) => showsSomebody(r.role))) {
    if (passages.some((p) => p.regionShifts.some((s) => s.regionId === region.id))) continue
    const { subjects } = presenceIn(seen, region, boundsByPassage(passages, region))
    const inside = subjects.samples.flatMap(({ subject }) => {
      const part = subject && intersection(subject, region.bounds)
      return part && subject && areaOf(part) > areaOf(subject) / 2 ? [part] : []
    })
    if (subjects.by === 'face' && inside.length >= MIN_FOUND * subjects.samples.length && inside.length > 0)
      heads.set(region.id, inside.reduce(unionOf))
  }
  return heads
}
