import { regionIn, shiftTo } from '@/core/compose/regionIn'
import { toEvenPixels, toFractions } from '@/core/geometry/evenGrid'
import type { Rect, Size } from '@/core/geometry/rect'
import { passageOf, setupOf } from '@/core/model/edit'
import type { PassageId, RegionId } from '@/core/model/ids'
import type { Passage, PathKey } from '@/core/model/passage'
import type { Region } from '@/core/model/region'
import { setRegionPixels, type EditSession } from './edits'

/** What can be done to where regions lie in one passage alone. Changes with the same `gesture` are undone together. */

export function isShifted({ regionShifts }: Passage, id: RegionId): boolean {
  return regionShifts.some((s) => s.regionId === id)
}

/** Puts a region at `pixels` of a frame of size `frame`: in all passages, or in this one alone where it lies differently already (or `here` says so). */
export function placeRegion(session: EditSession, passage: Passage, frame: Size, region: Pick<Region, 'id' | 'name'>, pixels: Rect, label: string, gesture: string, here = isShifted(passage, region.id)): void {
  if (here) shiftRegion(session, passage.id, frame, region, pixels, gesture)
  else setRegionPixels(session, frame, region.id, pixels, label, gesture)
}

/** Puts a region elsewhere in one passage: `pixels` of a frame of size `frame`. Its proportion stays; its width says how large it is. */
export function shiftRegion(session: EditSession, passageId: PassageId, frame: Size, region: Pick<Region, 'id' | 'name'>, pixels: Rect, gesture: string): void {
  session.change(`Shift ${region.name} in this passage`, gesture, (draft) => {
    const passage = passageOf(draft, passageId)
    const base = setupOf(draft, passage.setupId).regions.find((r) => r.id === region.id)
    if (!base) return
    const to = toFractions(toEvenPixels(toFractions(pixels, frame), frame), frame)
    passage.regionShifts = [...passage.regionShifts.filter((s) => s.regionId !== region.id), shiftTo(base, to)]
  })
}

/** A region lies in this passage where it lies in all again. */
export function clearShift(session: EditSession, passageId: PassageId, { id, name }: Pick<Region, 'id' | 'name'>): void {
  session.change(`${name} as in all passages`, crypto.randomUUID(), (draft) => {
    const passage = passageOf(draft, passageId)
    passage.regionShifts = passage.regionShifts.filter((s) => s.regionId !== id)
  })
}

/** The crops of a region follow a path in one passage; no keys: they stand still. */
export function setPath(session: EditSession, passageId: PassageId, { id, name }: Pick<Region, 'id' | 'name'>, keys: readonly PathKey[], label = `Follow in ${name}`, gesture: string = crypto.randomUUID()): void {
  session.change(label, gesture, (draft) => {
    const passage = passageOf(draft, passageId)
    passage.cropPaths = passage.cropPaths.filter((p) => p.regionId !== id)
    if (keys.length > 0) passage.cropPaths.push({ regionId: id, keys: [...keys] })
  })
}

/** The regions of a passage's setup as they lie in it. */
export function regionsIn(passage: Passage, regions: readonly Region[]): Region[] {
  return regions.map((r) => regionIn(passage, r, passage.inMicros))
}
