import type { Draft } from 'immer'
import { isShifted, shiftTo } from '@/core/compose/regionIn'
import type { RegionProposal } from '@/core/detect/regions/proposal'
import { toEvenPixels, toFractions } from '@/core/geometry/evenGrid'
import { carriedAlong, fitInside, shareOfBoth, type Rect, type Size } from '@/core/geometry/rect'
import { freeName } from '@/core/interchange/freeName'
import { passageOf, setupOf, type Edit } from '@/core/model/edit'
import { newId, type PassageId, type RegionId, type SetupId } from '@/core/model/ids'
import type { Passage, PathKey } from '@/core/model/passage'
import { confirmed, nameForRole, newRegion, STANDARD_ROLES, type Region } from '@/core/model/region'
import { copyOf, MAX_REGIONS, type Setup } from '@/core/model/setup'
import { isStartingRegion } from '@/core/model/starting'
import { command, type Host } from './command'

/** Where things are in the recorded picture: regions, their focus and paths, and the setups that hold them. */

type Named = Pick<Region, 'id' | 'name'>

const regionOf = (edit: Edit, id: RegionId) => edit.setups.flatMap((s) => s.regions).find((r) => r.id === id)

/** A locked region stays where it is, whoever wants to move it. */
const refuseLocked = (edit: Edit, { id }: { id: RegionId }) => {
  const region = regionOf(edit, id)
  return region?.locked ? `“${region.name}” is locked` : null
}

/** Changes a region, which is a guess no more then. */
function changeRegion(draft: Draft<Edit>, id: RegionId, change: (region: Draft<Region>) => void): void {
  const setup = draft.setups.find((s) => s.regions.some((r) => r.id === id))
  const region = setup?.regions.find((r) => r.id === id)
  if (!setup || !region) return
  setup.isGuess = false
  delete region.isGuess
  change(region)
}

/** Bounds from pixels of a frame of size `frame`, on even ones. */
const onEvenPixels = (pixels: Rect, frame: Size) => toFractions(toEvenPixels(toFractions(pixels, frame), frame), frame)

/** Puts a region at `bounds`, shares of the frame; its focus goes along and stays inside. */
export const resizeRegion = command<{ id: RegionId; bounds: Rect; label: string }>({
  id: 'resize-region',
  label: ({ label }) => label,
  refuse: refuseLocked,
  apply: (draft, { id, bounds }) =>
    changeRegion(draft, id, (region) => {
      region.focus &&= fitInside(carriedAlong(region.focus, region.bounds, bounds), bounds)
      region.bounds = bounds
    }),
})

/** The same from pixels of a frame of size `frame`; they come to lie on even ones. */
export const setRegionPixels = command<{ frame: Size; id: RegionId; pixels: Rect; label: string }>({
  id: 'set-region-pixels',
  label: ({ label }) => label,
  refuse: refuseLocked,
  apply: (draft, { frame, id, pixels, label }) =>
    resizeRegion.apply(draft, { id, bounds: onEvenPixels(pixels, frame), label }),
})

/**
 * Sets what of a region is not cut where that can be helped, pixels of a frame of size `frame`, held inside its
 * bounds; null: only its middle matters.
 */
export const setFocus = command<{ frame: Size; id: RegionId; pixels: Rect | null; label: string }>({
  id: 'set-focus',
  label: ({ label }) => label,
  apply: (draft, { frame, id, pixels }) =>
    changeRegion(draft, id, (region) => {
      region.focus = pixels && fitInside(toFractions(pixels, frame), region.bounds)
    }),
})

export const setRegionRole = command<{ id: RegionId; role: string }>({
  id: 'set-region-role',
  label: 'Change role',
  apply: (draft, { id, role }) =>
    changeRegion(draft, id, (region) => void Object.assign(region, { role, name: nameForRole(role) })),
})

export const addRegion = command<{ id: RegionId; setupId: SetupId; role: string }>({
  id: 'add-region',
  label: 'Add region',
  apply: (draft, { id, setupId, role }) => {
    const bounds =
      role === 'whole' ? { x: 0, y: 0, width: 1, height: 1 } : { x: 0.375, y: 0.375, width: 0.25, height: 0.25 }
    setupOf(draft, setupId).regions.push(newRegion(id, role, nameForRole(role), bounds))
  },
})

/**
 * Draws a region: it is there from the first call with its `id` on, and follows with the next ones, all in one step.
 * Its role is the first that is still free.
 */
export const drawRegion = command<{ setupId: SetupId; frame: Size; id: RegionId; pixels: Rect }>({
  id: 'draw-region',
  label: 'Draw region',
  apply: (draft, { setupId, frame, id, pixels }) => {
    const setup = setupOf(draft, setupId)
    const bounds = onEvenPixels(pixels, frame)
    const drawn = setup.regions.find((r) => r.id === id)
    const role = STANDARD_ROLES.find((free) => setup.regions.every((r) => r.role !== free)) ?? 'game'
    setup.isGuess = false
    if (drawn) drawn.bounds = bounds
    else
      setup.regions.push(
        newRegion(
          id,
          role,
          freeName(
            nameForRole(role),
            setup.regions.map((r) => r.name),
          ),
          bounds,
        ),
      )
  },
})

export const removeRegion = command<{ id: RegionId }>({
  id: 'remove-region',
  label: 'Remove region',
  apply: (draft, { id }) => {
    for (const setup of draft.setups) setup.regions = setup.regions.filter((r) => r.id !== id)
  },
})

export const setRegion = command<{
  id: RegionId
  label: string
  change: Partial<Pick<Region, 'name' | 'locked' | 'hidden' | 'proportion' | 'outline'>>
}>({
  id: 'set-region',
  label: ({ label }) => label,
  apply: (draft, { id, change }) => changeRegion(draft, id, (region) => void Object.assign(region, change)),
})

/**
 * A copy of a region with the id `copyId`, a little to the side where there is room; it stays in front of the one it
 * is of.
 */
export const copyRegion = command<{ id: RegionId; copyId: RegionId }>({
  id: 'copy-region',
  label: 'Copy region',
  apply: (draft, { id, copyId }) => {
    const setup = draft.setups.find((s) => s.regions.some((r) => r.id === id))
    const at = setup?.regions.findIndex((r) => r.id === id) ?? -1
    const region = setup?.regions[at]
    if (!setup || !region) return
    const { x, y, width, height } = region.bounds
    const bounds = { width, height, x: Math.min(x + 0.02, 1 - width), y: Math.min(y + 0.02, 1 - height) }
    const name = freeName(
      region.name,
      setup.regions.map((r) => r.name),
    )
    const focus = region.focus && carriedAlong(region.focus, region.bounds, bounds)
    setup.regions.splice(at + 1, 0, { ...region, id: copyId, name, bounds, focus, locked: false })
  },
})

/**
 * Moves a region one place up or down in the order; panels that ask for one role more than once take its regions in
 * it.
 */
export const orderRegion = command<{ id: RegionId; by: 1 | -1 }>({
  id: 'order-region',
  label: 'Order regions',
  apply: (draft, { id, by }) => {
    for (const { regions } of draft.setups) {
      const at = regions.findIndex((r) => r.id === id)
      const other = regions[at + by]
      if (at < 0 || !other) continue
      regions[at + by] = regions[at] as Draft<Region>
      regions[at] = other
    }
  },
})

/** Where what was found lies, as edits take it: fractions of a frame of size `frame`, on even pixels. */
export const boundsOf = ({ rect }: RegionProposal, frame: Size): Rect => onEvenPixels(rect, frame)

/** What was found, as edits take it. */
export const asRegions = (proposals: readonly RegionProposal[], frame: Size): Proposed[] =>
  proposals.map((p) => ({ role: p.role, bounds: boundsOf(p, frame), ...(p.name && { name: p.name }) }))

/** Two places of so much in common (over both) are the same thing, seen otherwise. */
const SAME_THING = 0.2

/** What somebody placed in a setup; while all of it is a guess, nothing. */
const placedIn = ({ regions, isGuess }: Setup): Region[] =>
  regions.filter((r) => r.locked || (!isGuess && !r.isGuess && !isStartingRegion(r)))

/** A region as it is proposed; without a name it gets its role's. */
type Proposed = Pick<Region, 'role' | 'bounds'> & Partial<Pick<Region, 'name'>>

/** Two places of so much in common (over both), in the same role, are the same proposal. */
const SAME_PROPOSAL = 0.6

/** Whether somebody has rejected a proposal, or one hardly different from it. */
export const isRejected = ({ rejected = [] }: Setup, { role, bounds }: Proposed): boolean =>
  rejected.some((r) => r.role === role && shareOfBoth(r.bounds, bounds) >= SAME_PROPOSAL)

/**
 * Proposals that contradict nothing that somebody placed in a setup: neither is anything of the same role there, nor is
 * much of the same place taken, nor has it been rejected.
 */
export function uncontested<T extends Proposed>(setup: Setup, proposals: readonly T[]): T[] {
  const placed = placedIn(setup)
  return proposals.filter(
    (p) =>
      !isRejected(setup, p) && !placed.some((r) => r.role === p.role || shareOfBoth(r.bounds, p.bounds) >= SAME_THING),
  )
}

/** Rejects a proposal: it is not made again for this setup. */
export const rejectProposal = command<{ setupId: SetupId; proposal: Proposed }>({
  id: 'reject-proposal',
  label: ({ proposal }) => `Reject ${nameForRole(proposal.role)}`,
  apply: (draft, { setupId, proposal: { role, bounds } }) => {
    const setup = setupOf(draft, setupId)
    setup.rejected = [...(setup.rejected ?? []), { role, bounds }].slice(-MAX_REGIONS)
  },
})

/** Says that what was found by itself in a setup is right as it is. */
export const confirmRegions = command<{ setupId: SetupId }>({
  id: 'confirm-regions',
  label: 'Confirm regions',
  apply: (draft, { setupId }) => {
    const setup = setupOf(draft, setupId)
    setup.isGuess = false
    setup.regions = confirmed(setup.regions)
  },
})

/**
 * Takes proposals into a setup as one step. Each takes the place of an untouched guess of its role, or is added. A
 * region that somebody placed, named or locked is never moved by `all`: what contradicts it is left for somebody to
 * choose, one by one. Of regions that were only guessed to begin with, those
 * that nothing was found for then go. `byItself`: nobody has said so, and they are marked as guesses until somebody
 * touches them.
 */
export const acceptProposals = command<{
  setupId: SetupId
  proposals: readonly Proposed[]
  all?: boolean
  byItself?: boolean
}>({
  id: 'accept-proposals',
  label: ({ proposals }) => (proposals.length === 1 ? 'Accept region' : 'Accept regions'),
  apply: (draft, { setupId, proposals, all = false, byItself = false }) => {
    const setup = setupOf(draft, setupId)
    const { regions, isGuess } = setup
    const placed = placedIn(setup)
    const wanted = all ? uncontested(setup, proposals) : proposals
    setup.isGuess = false
    const taken = new Set<string>()
    const guessed = byItself ? { isGuess: true as const } : {}
    for (const { role, bounds, name } of wanted) {
      const same = placed.find((r) => r.role === role && shareOfBoth(r.bounds, bounds) >= SAME_THING)
      const guess = regions.find((r) => r.role === role && !r.locked && !taken.has(r.id) && !placed.includes(r))
      const standing = same && !same.locked && !taken.has(same.id) ? same : guess
      const id = standing?.id ?? newId<RegionId>()
      taken.add(id)
      if (standing) {
        delete standing.isGuess
        delete standing.head
        Object.assign(standing, { bounds, focus: null, ...(name && { name }), ...guessed })
        continue
      }
      const names = regions.map((r) => r.name)
      regions.push({ ...newRegion(id, role, freeName(name ?? nameForRole(role), names), bounds), ...guessed })
    }
    if (all && isGuess) setup.regions = regions.filter((r) => taken.has(r.id) || r.locked)
  },
})

/** Puts the content of a kept setup in the place of a working copy's. */
export const applySetup = command<{ setupId: SetupId; kept: Setup }>({
  id: 'apply-setup',
  label: ({ kept }) => `Apply ${kept.name}`,
  apply: (draft, { setupId, kept }) => void Object.assign(setupOf(draft, setupId), copyOf(kept)),
})

/** Lets every setup that is based on a kept one be as that is now. */
export const followSetup = command<{ kept: Setup }>({
  id: 'follow-setup',
  label: ({ kept }) => `Follow ${kept.name}`,
  apply: (draft, { kept }) => {
    for (const setup of draft.setups) if (setup.basedOn === kept.id) Object.assign(setup, copyOf(kept))
  },
})

/** Says that a working copy is now the same as a kept setup. */
export const baseSetupOn = command<{ setupId: SetupId; kept: Setup }>({
  id: 'base-setup-on',
  label: 'Keep setup',
  apply: (draft, { setupId, kept: { id, name, tags, fingerprint } }) => {
    const setup = setupOf(draft, setupId)
    const regions = confirmed(setup.regions)
    Object.assign(setup, { name, regions, tags, fingerprint, basedOn: id, isGuess: false })
  },
})

/**
 * Puts a region elsewhere in one passage: `pixels` of a frame of size `frame`. Its proportion stays; its width says
 * how large it is.
 */
export const shiftRegion = command<{ passageId: PassageId; frame: Size; region: Named; pixels: Rect }>({
  id: 'shift-region',
  label: ({ region }) => `Shift ${region.name} in this passage`,
  refuse: (edit, { region }) => refuseLocked(edit, region),
  apply: (draft, { passageId, frame, region, pixels }) => {
    const passage = passageOf(draft, passageId)
    const base = setupOf(draft, passage.setupId).regions.find((r) => r.id === region.id)
    if (!base) return
    passage.regionShifts = [
      ...passage.regionShifts.filter((s) => s.regionId !== region.id),
      shiftTo(base, onEvenPixels(pixels, frame)),
    ]
  },
})

/**
 * Puts a region at `pixels` of a frame of size `frame`: in all passages, or in this one alone where it lies
 * differently already (or `here` says so).
 */
export function placeRegion(
  host: Host,
  passage: Passage,
  frame: Size,
  region: Named,
  pixels: Rect,
  label: string,
  gesture: string,
  here = isShifted(passage, region.id),
): boolean {
  if (here) return shiftRegion(host, { passageId: passage.id, frame, region, pixels }, gesture)
  return setRegionPixels(host, { frame, id: region.id, pixels, label }, gesture)
}

/** A region lies in this passage where it lies in all again. */
export const clearShift = command<{ passageId: PassageId; region: Named }>({
  id: 'clear-shift',
  label: ({ region }) => `${region.name} as in all passages`,
  apply: (draft, { passageId, region }) => {
    const passage = passageOf(draft, passageId)
    passage.regionShifts = passage.regionShifts.filter((s) => s.regionId !== region.id)
  },
})

/** The crops of a region follow a path in one passage; no keys: they stand still. */
export const setPath = command<{ passageId: PassageId; region: Named; keys: readonly PathKey[]; label?: string }>({
  id: 'set-path',
  label: ({ region, label = `Follow in ${region.name}` }) => label,
  apply: (draft, { passageId, region, keys }) => {
    const passage = passageOf(draft, passageId)
    passage.cropPaths = passage.cropPaths.filter((p) => p.regionId !== region.id)
    if (keys.length > 0) passage.cropPaths.push({ regionId: region.id, keys: [...keys] })
  },
})
