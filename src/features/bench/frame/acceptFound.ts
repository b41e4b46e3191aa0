import type { RegionProposal } from '@/core/detect/regions/propose'
import { toEvenPixels, toFractions } from '@/core/geometry/evenGrid'
import type { Rect, Size } from '@/core/geometry/rect'
import type { Edit } from '@/core/model/edit'
import type { PassageId, SetupId } from '@/core/model/ids'
import { suitLayout } from '@/edit/layouts'
import { acceptProposals } from '@/edit/regions'
import type { Session } from '@/store/session'

/** A proposal as edits take it: bounds as fractions of the frame. */
export function boundsOf({ rect }: RegionProposal, size: Size): Rect {
  return toFractions(toEvenPixels(toFractions(rect, size), size), size)
}

/**
 * Takes proposals in as one step; `all`: these are all that is sure, so that the layout becomes the one that suits
 * them. `size`: of the recording's frame, px.
 */
export function acceptFound(
  session: Session<Edit>,
  { setupId, passageId, size }: { setupId: SetupId; passageId: PassageId; size: Size },
  proposals: readonly RegionProposal[],
  all: boolean,
): void {
  const gesture = crypto.randomUUID()
  acceptProposals(
    session,
    { setupId, proposals: proposals.map((p) => ({ role: p.role, bounds: boundsOf(p, size) })), all },
    gesture,
  )
  if (all) suitLayout(session, passageId, gesture)
}
