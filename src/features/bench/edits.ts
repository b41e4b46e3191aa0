import type { Draft } from 'immer'
import { toEvenPixels, toFractions } from '@/core/geometry/evenGrid'
import { carriedAlong, fitInside, type Rect, type Size } from '@/core/geometry/rect'
import { freeName } from '@/core/interchange/freeName'
import { setupOf, type Edit } from '@/core/model/edit'
import type { RegionId, SetupId } from '@/core/model/ids'
import type { Layout } from '@/core/model/layout'
import { newRegion, STANDARD_ROLES, type Region } from '@/core/model/region'
import type { Setup } from '@/core/model/setup'
import type { Shape } from '@/core/model/shape'
import type { Version } from '@/core/model/version'
import type { Session } from '@/store/session'
import { copyOf } from '@/store/setups'

export type EditSession = Session<Edit>

/** What can be done on the Bench to where things are; to when, see sheet/cuts, to what you get, shapes/arranging. Changes with the same `gesture` are undone together. */

/** Puts a kept version in the place of the present state; the name stays, and undo leads back. */
export function goBackTo(session: EditSession, { edit }: Version): void {
  session.extend((draft) => {
    for (const kind of ['recordings', 'soundFiles', 'imageFiles', 'fontFiles', 'setups', 'layouts'] as const) {
      const there: { id: string }[] = draft[kind]
      there.push(...edit[kind].filter((old) => !there.some((r) => r.id === old.id)))
    }
  })
  session.change('Go back to a version', crypto.randomUUID(), (draft) => {
    const { passages, shapes, joinTiming, beds, words, marks, accepted, output, limitDb, brandId } = edit.highlight
    Object.assign(draft.highlight, { passages, shapes, joinTiming, beds, words, marks, accepted, output, limitDb, brandId })
    for (const setup of draft.setups) Object.assign(setup, regionsOf(edit.setups.find((s) => s.id === setup.id)))
    for (const layout of draft.layouts) Object.assign(layout, arranged(edit.layouts.find((l) => l.id === layout.id)))
  })
}

function regionsOf(setup: Setup | undefined): Partial<Setup> {
  return setup ? { regions: setup.regions, name: setup.name, tags: setup.tags, fingerprint: setup.fingerprint, basedOn: setup.basedOn, isGuess: setup.isGuess } : {}
}

function arranged(layout: Layout | undefined): Partial<Layout> {
  return layout ? { arrangement: layout.arrangement, perShape: layout.perShape, name: layout.name, basedOn: layout.basedOn } : {}
}

export function setName(session: EditSession, name: string, gesture: string): void {
  session.change('Rename', gesture, (draft) => {
    draft.highlight.name = name
  })
}

/** Puts a shape into the highlight or takes it out; the last one stays. */
export function toggleShape(session: EditSession, shape: Shape): void {
  session.change('Choose shapes', crypto.randomUUID(), (draft) => {
    const { shapes } = draft.highlight
    const at = shapes.findIndex((s) => s.id === shape.id)
    if (at < 0) shapes.push({ ...shape })
    else if (shapes.length > 1) shapes.splice(at, 1)
  })
}

function editRegion(session: EditSession, label: string, gesture: string, id: RegionId, recipe: (region: Draft<Region>) => void): void {
  session.change(label, gesture, (draft) => {
    const setup = draft.setups.find((s) => s.regions.some((r) => r.id === id))
    const region = setup?.regions.find((r) => r.id === id)
    if (!setup || !region) return
    setup.isGuess = false
    recipe(region)
  })
}

/** Sets a region's bounds from pixels of a frame of size `frame`; they come to lie on even pixels. Its focus goes along. */
export function setRegionPixels(session: EditSession, frame: Size, id: RegionId, pixels: Rect, label: string, gesture: string): void {
  editRegion(session, label, gesture, id, (region) => {
    const bounds = toFractions(toEvenPixels(toFractions(pixels, frame), frame), frame)
    region.focus &&= fitInside(carriedAlong(region.focus, region.bounds, bounds), bounds)
    region.bounds = bounds
  })
}

/** Sets what of a region is not cut where that can be helped, pixels of a frame of size `frame`, held inside its bounds; null: only its middle matters. */
export function setFocus(session: EditSession, frame: Size, id: RegionId, pixels: Rect | null, label: string, gesture: string = crypto.randomUUID()): void {
  editRegion(session, label, gesture, id, (region) => {
    region.focus = pixels && fitInside(toFractions(pixels, frame), region.bounds)
  })
}

export function setRegionRole(session: EditSession, id: RegionId, role: string): void {
  editRegion(session, 'Change role', crypto.randomUUID(), id, (region) => {
    region.role = role
    region.name = nameForRole(role)
  })
}

export function addRegion(session: EditSession, setupId: SetupId, role: string): RegionId {
  const id = crypto.randomUUID() as RegionId
  session.change('Add region', id, (draft) => {
    const bounds = role === 'whole' ? { x: 0, y: 0, width: 1, height: 1 } : { x: 0.375, y: 0.375, width: 0.25, height: 0.25 }
    setupOf(draft, setupId).regions.push(newRegion(id, role, nameForRole(role), bounds))
  })
  return id
}

/** Draws a region: it is there from the first call with its `id` on, and follows with the next ones, all in one step. Its role is the first that is still free. */
export function drawRegion(session: EditSession, setupId: SetupId, frame: Size, id: RegionId, pixels: Rect, gesture: string): void {
  session.change('Draw region', gesture, (draft) => {
    const setup = setupOf(draft, setupId)
    const bounds = toFractions(toEvenPixels(toFractions(pixels, frame), frame), frame)
    const known = setup.regions.find((r) => r.id === id)
    const role = STANDARD_ROLES.find((free) => setup.regions.every((r) => r.role !== free)) ?? 'game'
    setup.isGuess = false
    if (known) known.bounds = bounds
    else setup.regions.push(newRegion(id, role, freeName(nameForRole(role), setup.regions.map((r) => r.name)), bounds))
  })
}

export function removeRegion(session: EditSession, id: RegionId): void {
  session.change('Remove region', crypto.randomUUID(), (draft) => {
    for (const setup of draft.setups) setup.regions = setup.regions.filter((r) => r.id !== id)
  })
}

export function setRegion(session: EditSession, id: RegionId, label: string, change: Partial<Pick<Region, 'name' | 'locked' | 'hidden' | 'proportion' | 'outline'>>, gesture: string = crypto.randomUUID()): void {
  editRegion(session, label, gesture, id, (region) => void Object.assign(region, change))
}

/** A copy of a region, a little to the side where there is room; it stays in front of the one it is of. */
export function copyRegion(session: EditSession, id: RegionId): RegionId {
  const copied = crypto.randomUUID() as RegionId
  session.change('Copy region', copied, (draft) => {
    const setup = draft.setups.find((s) => s.regions.some((r) => r.id === id))
    const at = setup?.regions.findIndex((r) => r.id === id) ?? -1
    const region = setup?.regions[at]
    if (!setup || !region) return
    const { x, y, width, height } = region.bounds
    const bounds = { width, height, x: Math.min(x + 0.02, 1 - width), y: Math.min(y + 0.02, 1 - height) }
    setup.regions.splice(at + 1, 0, { ...region, id: copied, name: freeName(region.name, setup.regions.map((r) => r.name)), bounds, focus: region.focus && carriedAlong(region.focus, region.bounds, bounds), locked: false })
  })
  return copied
}

/** Moves a region one place up or down in the order; panels that ask for one role more than once take its regions in it. */
export function orderRegion(session: EditSession, id: RegionId, by: 1 | -1): void {
  session.change('Order regions', crypto.randomUUID(), (draft) => {
    for (const { regions } of draft.setups) {
      const at = regions.findIndex((r) => r.id === id)
      const other = regions[at + by]
      if (at < 0 || !other) continue
      regions[at + by] = regions[at] as Draft<Region>
      regions[at] = other
    }
  })
}

/**
 * Takes proposals into a setup as one step: each takes the place of the next region of its role that has not been taken, or is added. `all`: whether
 * these are all that was found; of regions that were only guessed to begin with, those that nothing was found for then go.
 */
export function acceptProposals(session: EditSession, setupId: SetupId, proposals: readonly { role: string; bounds: Rect }[], all = false, gesture: string = crypto.randomUUID()): void {
  session.change(proposals.length === 1 ? 'Accept region' : 'Accept regions', gesture, (draft) => {
    const setup = setupOf(draft, setupId)
    const { regions } = setup
    const wasGuessed = setup.isGuess
    setup.isGuess = false
    const taken = new Set<string>()
    for (const { role, bounds } of proposals) {
      const known = regions.find((r) => r.role === role && !r.locked && !taken.has(r.id))
      const region = known ?? newRegion(crypto.randomUUID() as RegionId, role, freeName(nameForRole(role), regions.map((r) => r.name)), bounds)
      taken.add(region.id)
      if (known) Object.assign(known, { bounds, focus: null })
      else regions.push(region)
    }
    if (all && wasGuessed) setup.regions = regions.filter((r) => taken.has(r.id) || r.locked)
  })
}

/** Puts a kept setup's regions in the place of a working copy's. */
export function applySetup(session: EditSession, setupId: SetupId, kept: Setup, gesture: string = crypto.randomUUID()): void {
  session.change(`Apply ${kept.name}`, gesture, (draft) => {
    Object.assign(setupOf(draft, setupId), copyOf(kept))
  })
}

/** Says that a working copy is now the same as a kept setup. */
export function baseSetupOn(session: EditSession, setupId: SetupId, { id, name, tags, fingerprint }: Setup): void {
  session.change('Keep setup', crypto.randomUUID(), (draft) => void Object.assign(setupOf(draft, setupId), { name, tags, fingerprint, basedOn: id, isGuess: false }))
}

export function nameForRole(role: string): string {
  return role.slice(0, 1).toUpperCase() + role.slice(1)
}
