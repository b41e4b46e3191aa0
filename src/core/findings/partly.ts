import type { Rect } from '../geometry/rect'
import type { Edit } from '../model/edit'
import { passageOf, setupOf } from '../model/edit'
import { correctionFor } from '../model/passage'
import type { Remedy } from './finding'

const between = (a: number, b: number, share: number) => a + (b - a) * share

/**
 * A remedy a part of the way (0..1) from how things are in `edit`, for showing it moving; null for one that is either
 * done or not.
 */
export function partly(edit: Edit, remedy: Remedy, share: number): Remedy | null {
  switch (remedy.kind) {
    case 'move-crop': {
      const { correction } = remedy
      const from = correctionFor(passageOf(edit, remedy.passageId), correction.panelId, correction.shapeId ?? '') ?? {
        dx: 0,
        dy: 0,
        zoom: 1,
      }
      return {
        ...remedy,
        correction: {
          ...correction,
          dx: between(from.dx, correction.dx, share),
          dy: between(from.dy, correction.dy, share),
          zoom: between(from.zoom, correction.zoom, share),
        },
      }
    }
    case 'tighten-region':
    case 'grow-region': {
      const from = setupOf(edit, remedy.setupId).regions.find((r) => r.id === remedy.regionId)?.bounds
      return from ? { ...remedy, bounds: rectBetween(from, remedy.bounds, share) } : null
    }
    default:
      return null
  }
}

const rectBetween = (a: Rect, b: Rect, share: number): Rect => ({
  x: between(a.x, b.x, share),
  y: between(a.y, b.y, share),
  width: between(a.width, b.width, share),
  height: between(a.height, b.height, share),
})
