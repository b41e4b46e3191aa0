import type { Guides } from '@/core/layout/insets'
import type { TitleId } from '@/core/model/ids'
import type { Outlet } from '@/core/model/outlet'

/** How the shapes are looked at, and what is being done in one of them. */
export interface ShapesView {
  /** Whether an arrangement is only being tried: what is drawn is not what is edited. */
  trial: boolean
  /** The outlet whose zones are drawn over the shapes. */
  outlet: Outlet | null
  /** The title that is being written where it stands, in one of the shapes. */
  writing: { titleId: TitleId; shapeId: string } | null
  /** Lines that what is being dragged has come to rest on, px of a shape. */
  guides: (Guides & { shapeId: string }) | null
  /** The shape that is looked at alone, and how. */
  alone: { shapeId: string; as: 'full' | 'phone' } | null
}

export const NEW_SHAPES_VIEW: ShapesView = { trial: false, outlet: null, writing: null, guides: null, alone: null }
