import type { Rect } from '@/core/geometry/rect'
import { moveRect, resizeRect, type Grip } from '@/core/geometry/resize'
import { arrangementIn } from '@/core/compose/arrangementIn'
import { guidesOf, snapToGuides } from '@/core/layout/insets'
import { solve } from '@/core/layout/solve'
import { passageOf } from '@/core/model/edit'
import type { InsetId } from '@/core/model/ids'
import type { Shape } from '@/core/model/shape'
import type { DragMove } from '@/ui/useDrag'
import { useBenchContext, usePassage } from '../benchContext'
import { zonesOver } from './zones'

/** On screen something comes to rest on a guide from this near, CSS px. */
const REACH_CSS = 6

/** Something that lies over the bands at a place of its own. */
export interface Hanging {
  id: string
  /** Px of the shape. */
  rect: Rect
  /** The inset that it is, whose own edges it does not rest on. */
  insetId: InsetId | null
  /** Smallest side, px of the shape. */
  least: number
  /** `only`: in this shape alone. */
  place: (rect: Rect, only: boolean, gesture: string) => void
}

/**
 * What moves and resizes what hangs: the mouse, with guides to rest on (Ctrl: without; Shift on a corner: out of
 * proportion; Alt: this shape only), and keys.
 */
export function useHanging(shape: Shape, { id, rect, insetId, least, place }: Hanging) {
  const { session, view } = useBenchContext()
  const { passage } = usePassage()
  const canvas = { x: 0, y: 0, width: shape.width, height: shape.height }
  const resizing = { bounds: canvas, least, aspect: rect.width / rect.height }
  const drag = (outputPerCss: number, grip: string | null) => {
    const solved = solve(arrangementIn(session.value, passageOf(session.value, passage.id), shape), shape)
    const guides = guidesOf(solved, shape, insetId, zonesOver(view.getState().outlet, shape))
    return ({ dx, dy, gesture, altKey, ctrlKey, shiftKey }: DragMove) => {
      const [x, y] = [dx * outputPerCss, dy * outputPerCss]
      const moved = grip
        ? resizeRect(rect, grip as Grip, x, y, { ...resizing, aspect: shiftKey ? null : resizing.aspect })
        : moveRect(rect, x, y, canvas)
      const snapped =
        grip || ctrlKey ? { rect: moved, on: null } : snapToGuides(moved, guides, REACH_CSS * outputPerCss)
      view.setState({ guides: snapped.on && { shapeId: shape.id, ...snapped.on } })
      place(snapped.rect, altKey, gesture)
    }
  }
  const release = () => view.setState({ guides: null })
  const key = (dx: number, dy: number, size: boolean) => {
    const moved = size ? resizeRect(rect, 'se', dx, dy, resizing) : moveRect(rect, dx, dy, canvas)
    place(moved, false, `keys ${id} ${size ? 'size' : 'place'}`)
  }
  return { drag, release, key }
}
