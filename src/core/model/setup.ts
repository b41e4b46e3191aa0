import { z } from 'zod'
import { fingerprint } from '../detect/regions/fingerprint'
import { highlightId, newId, setupId, type RegionId } from './ids'
import { recordBase, title } from './record'
import { confirmed, frameRect, region, role } from './region'
import { tag } from './tag'

export const MAX_REGIONS = 40

/** A place that was proposed as a region, and is none. */
const rejectedPlace = z.object({ role, bounds: frameRect })

/** A named set of regions: where things are in one arrangement of a recorder's screen. */
export const setup = recordBase.extend({
  id: setupId,
  name: title,
  regions: z.array(region).max(MAX_REGIONS),
  /** The highlight whose working copy this is, or null for one that is kept for all. */
  ownedBy: highlightId.nullable(),
  /** Words to find it by: a game, a client. */
  tags: z.array(tag).max(20).default([]),
  /** By which a new recording is recognised as having it; null when nobody has looked. */
  fingerprint: fingerprint.nullable().default(null),
  /** For a working copy: the kept setup that it was taken from or kept as. */
  basedOn: setupId.nullable().default(null),
  /** Where nobody has said where anything is: its regions are a starting point. */
  isGuess: z.boolean().default(false),
  /** What somebody has rejected stays so: it is not proposed again. The latest; absent: nothing. */
  rejected: z.array(rejectedPlace).max(MAX_REGIONS).optional(),
})

export type Setup = z.infer<typeof setup>

/** A setup by what makes it one; the rest as it is for a new one. */
export function newSetup(
  made: Pick<Setup, 'schemaVersion' | 'createdAt' | 'updatedAt' | 'deletedAt' | 'id' | 'name' | 'regions' | 'ownedBy'> &
    Partial<Setup>,
): Setup {
  return { tags: [], fingerprint: null, basedOn: null, isGuess: false, ...made }
}

/** Whether nobody has said where anything is, nor which setup it is. */
export const isGuessedAt = ({ basedOn, isGuess, regions }: Setup): boolean =>
  basedOn === null && (isGuess || (regions.length > 0 && regions.every((r) => r.isGuess)))

/** A copy of a kept setup's content for a highlight's own, with ids of its own. */
export function copyOf({
  id,
  name,
  regions,
  tags,
  fingerprint,
  rejected,
}: Setup): Pick<Setup, 'name' | 'regions' | 'tags' | 'fingerprint' | 'basedOn' | 'isGuess' | 'rejected'> {
  return {
    name,
    regions: confirmed(regions).map((r) => ({ ...r, id: newId<RegionId>() })),
    tags,
    fingerprint,
    basedOn: id,
    isGuess: false,
    ...(rejected && { rejected }),
  }
}
