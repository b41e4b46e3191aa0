import { produce } from 'immer'
import { inOrder, suitEach } from '@/core/compose/suitedLayouts'
import type { RegionProposal } from '@/core/detect/regions/proposal'
import { toEvenPixels, toFractions } from '@/core/geometry/evenGrid'
import type { Rect, Size } from '@/core/geometry/rect'
import { layoutOf, passageOf, type Edit } from '@/core/model/edit'
import { newId, type InsetId, type PassageId, type SetupId } from '@/core/model/ids'
import { chosenAs, idsInUse, lacksRegion, layOut } from '@/edit/layouts'
import { acceptProposals } from '@/edit/regions'
import type { Session } from '@/store/session'
import { inTurns } from '@/ui/inTurns'

/** A proposal as edits take it: bounds as fractions of the frame. */
export function boundsOf({ rect }: RegionProposal, size: Size): Rect {
  return toFractions(toEvenPixels(toFractions(rect, size), size), size)
}

/** Proposals as edits take them. */
export const asRegions = (proposals: readonly RegionProposal[], size: Size) =>
  proposals.map((p) => ({ role: p.role, bounds: boundsOf(p, size) }))

/** What is accepted, and where: `size` of the recording's frame, px. */
interface Found {
  setupId: SetupId
  passageId: PassageId
  size: Size
  proposals: readonly RegionProposal[]
}

/**
 * Takes all of some proposals in as one step, in which the layout becomes the one that suits them best: if it asks for
 * what is not there any more, or `anew` in any case. Which one that is takes a moment; whether it is still `wanted`
 * then is asked, and given.
 */
export async function acceptAllFound(
  session: Session<Edit>,
  { setupId, passageId, size, proposals }: Found,
  { anew = false, wanted = () => true }: { anew?: boolean; wanted?: () => boolean } = {},
): Promise<boolean> {
  const args = { setupId, proposals: asRegions(proposals, size), all: true }
  const accepted = produce(session.value, (draft) => acceptProposals.apply(draft, args))
  const passage = passageOf(accepted, passageId)
  const { layoutId } = passage
  const ids = { panel: idsInUse(layoutOf(accepted, layoutId)), inset: () => newId<InsetId>() }
  const suited = anew || lacksRegion(accepted, passageId) ? await inTurns(suitEach(accepted, passage, ids)) : null
  if (!wanted()) return false
  const gesture = crypto.randomUUID()
  acceptProposals(session, args, gesture)
  const [best] = inOrder(suited ?? [])
  if (best) layOut(session, { passageId, layoutId, name: best.starting.name, chosen: chosenAs(best) }, gesture)
  return true
}
