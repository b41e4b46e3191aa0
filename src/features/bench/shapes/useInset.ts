import type { PlacedPanel } from '@/core/compose/placePanels'
import { moveRect, resizeRect, type Grip } from '@/core/geometry/resize'
import { arrangementFor } from '@/core/layout/arrangementFor'
import { guidesOf, snapToGuides } from '@/core/layout/insets'
import { solve } from '@/core/layout/solve'
import { layoutOf } from '@/core/model/edit'
import type { LayoutId } from '@/core/model/ids'
import type { Shape } from '@/core/model/shape'
import type { DragMove } from '@/ui/useDrag'
import { useBenchContext } from '../benchContext'
import { placeInset } from './arranging'
import { zonesOver } from './zones'

/** On screen an inset comes to rest on a guide from this near, CSS px. */
const REACH_CSS = 6
/** Smallest side of an inset, px of the canvas. */
const LEAST = 32

/** What moves and resizes an inset: the mouse, with guides to rest on (Ctrl: without; Shift on a corner: out of proportion; Alt: this shape only), and keys. */
export function useInset(layoutId: LayoutId, shape: Shape, { panel, rect, insetId }: PlacedPanel) {
  const { session, view } = useBenchContext()
  const canvas = { x: 0, y: 0, width: shape.width, height: shape.height }
  const resizing = { bounds: canvas, least: LEAST, aspect: rect.width / rect.height }
  const drag = (outputPerCss: number, grip: string | null) => {
    if (insetId === null) return null
    const solved = solve(arrangementFor(layoutOf(session.value, layoutId), shape), shape)
    const guides = guidesOf(solved, shape, insetId, zonesOver(view.getState().outlet, shape))
    return ({ dx, dy, gesture, altKey, ctrlKey, shiftKey }: DragMove) => {
      const [x, y] = [dx * outputPerCss, dy * outputPerCss]
      const moved = grip ? resizeRect(rect, grip as Grip, x, y, { ...resizing, aspect: shiftKey ? null : resizing.aspect }) : moveRect(rect, x, y, canvas)
      const snapped = grip || ctrlKey ? { rect: moved, on: null } : snapToGuides(moved, guides, REACH_CSS * outputPerCss)
      view.setState({ guides: snapped.on && { shapeId: shape.id, ...snapped.on } })
      placeInset(session, layoutId, { shape, only: altKey }, insetId, snapped.rect, gesture)
    }
  }
  const release = () => view.setState({ guides: null })
  const key = (dx: number, dy: number, size: boolean) => {
    if (insetId === null) return
    const moved = size ? resizeRect(rect, 'se', dx, dy, resizing) : moveRect(rect, dx, dy, canvas)
    placeInset(session, layoutId, { shape, only: false }, insetId, moved, `keys inset ${panel.id} ${size ? 'size' : 'place'}`)
  }
  return { drag, release, key }
}
