import { twoBands } from '../layout/starting'
import type { PanelId, RegionId } from './ids'
import type { Arrangement } from './layout'
import { newRegion, type Region } from './region'

export const DEFAULT_LAYOUT_NAME = 'Face over game'

/** Share of a tall frame that a 16:9 facecam takes when it fills the width: 608 of 1920 px. */
const FACE_SHARE = 608 / 1920

/** Two regions to begin with when nothing is known: a facecam's usual place, and the middle of the game. */
export function startingRegions(newId: () => RegionId): Region[] {
  return [
    newRegion(newId(), 'face', 'Face', { x: 0.725, y: 0.7, width: 0.25, height: 0.25 }),
    newRegion(newId(), 'game', 'Game', { x: 0.25, y: 0, width: 0.46875, height: 1 }),
  ]
}

/** Whether a region is where it was to begin with: nobody has said anything about it. */
export function isStartingRegion({ role, bounds }: Pick<Region, 'role' | 'bounds'>): boolean {
  const id = 'any' as RegionId
  return startingRegions(() => id).some(
    (r) => r.role === role && (['x', 'y', 'width', 'height'] as const).every((k) => r.bounds[k] === bounds[k]),
  )
}

/** The face above, the game below. */
export function startingLayout(newId: () => PanelId): Arrangement {
  return twoBands({ id: newId(), role: 'face' }, { id: newId(), role: 'game' }, FACE_SHARE)
}
