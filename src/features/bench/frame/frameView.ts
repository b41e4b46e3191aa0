import type { Point } from '@/core/geometry/rect'
import type { RegionId } from '@/core/model/ids'

/** What is being done to regions in the recording's frame. */
export interface FrameView {
  /** The region that is being dragged: the rest of the frame is dimmed meanwhile. */
  moving: RegionId | null
  /** The region whose crops are to follow what is in it, as soon as that is known. */
  wantsFollow: RegionId | null
  /** The point of the frame (px) that is looked at through the magnifier. */
  magnified: Point | null
}

export const NEW_FRAME_VIEW: FrameView = { moving: null, wantsFollow: null, magnified: null }
