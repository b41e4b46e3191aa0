import { produce } from 'immer'
import { inOrder, suitEach } from '@/core/compose/suitedLayouts'
import type { RegionProposal } from '@/core/detect/regions/proposal'
import type { Size } from '@/core/geometry/rect'
import { layoutOf, passageOf, type Edit } from '@/core/model/edit'
import type { Setup } from '@/core/model/setup'
import { newId, type InsetId, type PassageId, type SetupId } from '@/core/model/ids'
import { chosenAs, idsInUse, lacksRegion, layOut } from '@/edit/layouts'
import { acceptProposals, asRegions, boundsOf, isRejected } from '@/edit/regions'
import type { Session } from '@/store/session'
import { inTurns } from '@/ui/inTurns'

/** Proposals that are not regions already, and that nobody has rejected. */
export function openProposals(proposals: readonly RegionProposal[], setup: Setup, size: Size): RegionProposal[] {
  return proposals.filter((p) => {
    const bounds = boundsOf(p, size)
    return (
      !isRejected(setup, { role: p.role, bounds }) &&
      !setup.regions.some(
        (r) =>
          r.role === p.role &&
          (['x', 'y', 'width', 'height'] as const).every((k) => Math.abs(r.bounds[k] - bounds[k]) < 0.003),
      )
    )
  })
}

/** What is accepted, and where: `size` of the recording's frame, px. */
interface Found {
  setupId: SetupId
  passageId: PassageId
  size: Size
  proposals: readonly RegionProposal[]
}

/** `byItself`: nobody has said so. */
interface Taking {
  anew: boolean
  byItself: boolean
  wanted: () => boolean
}

/**
 * Takes all of some proposals in as one step, in which the layout becomes the one that suits them best: if it asks for
 * what is not there any more, or `anew` in any case. Which one that is takes a moment; whether it is still `wanted`
 * then is asked, and given.
 */
export async function acceptAllFound(
  session: Session<Edit>,
  { setupId, passageId, size, proposals }: Found,
  { anew = false, byItself = false, wanted = () => true }: Partial<Taking> = {},
): Promise<boolean> {
  const args = { setupId, proposals: asRegions(proposals, size), all: true, byItself }
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
