import { clamp } from '../clamp'
import { carriedAlong, centreOf, pushInside, type Rect } from '../geometry/rect'
import { SHIFT_SCALE, type Passage, type RegionShift } from '../model/passage'
import { WHOLE_FRAME, type Region } from '../model/region'
import type { Micros } from '../time/micros'
import { pathAt } from './cropPath'
import type { RegionId } from '../model/ids'

/**
 * A region as it lies in one passage at a recording time: with the passage's own shift, and its focus where the
 * passage's crop path has it.
 */
export function regionIn(
  passage: Pick<Passage, 'regionShifts' | 'cropPaths'>,
  region: Region,
  recordingMicros: Micros,
): Region {
  const shift = passage.regionShifts.find((s) => s.regionId === region.id)
  const path = passage.cropPaths.find((p) => p.regionId === region.id)
  if (!shift && !path) return region
  const bounds = shift ? shifted(region.bounds, shift) : region.bounds
  const focus = region.focus && carriedAlong(region.focus, region.bounds, bounds)
  const head = region.head && carriedAlong(region.head, region.bounds, bounds)
  const moved = { ...region, bounds, focus, ...(head && { head }) }
  if (!path) return moved
  const at = pathAt(path.keys, recordingMicros)
  return {
    ...moved,
    focus: pushInside({ x: at.x - LEAST / 2, y: at.y - LEAST / 2, width: LEAST, height: LEAST }, bounds),
  }
}

/** A focus that is a point still has a size; this is far under a pixel. */
const LEAST = 1e-6

function shifted(rect: Rect, { dx, dy, scale }: RegionShift): Rect {
  const width = Math.min(1, rect.width * scale)
  const height = Math.min(1, rect.height * scale)
  const { x, y } = centreOf(rect)
  return pushInside({ x: x + dx - width / 2, y: y + dy - height / 2, width, height }, WHOLE_FRAME)
}

/**
 * The shift that puts a region's bounds onto `to`, fractions of the frame: centre on centre, as wide as that where a
 * shift may be.
 */
export function shiftTo({ id, bounds }: Pick<Region, 'id' | 'bounds'>, to: Rect): RegionShift {
  const from = centreOf(bounds)
  const centre = centreOf(to)
  return {
    regionId: id,
    dx: centre.x - from.x,
    dy: centre.y - from.y,
    scale: clamp(to.width / bounds.width, SHIFT_SCALE),
  }
}

/** Whether a region lies elsewhere in a passage than in the others. */
export function isShifted({ regionShifts }: Passage, id: RegionId): boolean {
  return regionShifts.some((s) => s.regionId === id)
}

/** The regions of a passage's setup as they lie in it. */
export function regionsIn(passage: Passage, regions: readonly Region[]): Region[] {
  return regions.map((r) => regionIn(passage, r, passage.inMicros))
}
