import type { Draft } from 'immer'
import { toEvenPixels, toFractions } from '@/core/geometry/evenGrid'
import type { Rect, Size } from '@/core/geometry/rect'
import { placePanels } from '@/core/compose/compose'
import { panelPicture } from '@/core/compose/panelCrop'
import { moveSeam } from '@/core/layout/seams'
import type { Seam } from '@/core/layout/solve'
import { layoutOf, passageOf, recordingOf, setupOf, type Edit } from '@/core/model/edit'
import type { LayoutId, PanelId, PassageId, RegionId, SetupId } from '@/core/model/ids'
import type { Layout, LayoutNode } from '@/core/model/layout'
import type { Correction } from '@/core/model/passage'
import type { Region } from '@/core/model/region'
import type { Shape } from '@/core/model/shape'
import type { Version } from '@/core/model/version'
import type { Session } from '@/store/session'

export type EditSession = Session<Edit>

/** What can be done on the Bench to where things are and what you get; to when, see sheet/cuts. Changes with the same `gesture` are undone together. */

/** Puts a kept version in the place of the present state; the name stays, and undo leads back. */
export function goBackTo(session: EditSession, { edit }: Version): void {
  session.extend((draft) => {
    for (const kind of ['recordings', 'soundFiles', 'setups', 'layouts'] as const) {
      const there: { id: string }[] = draft[kind]
      there.push(...edit[kind].filter((old) => !there.some((r) => r.id === old.id)))
    }
  })
  session.change('Go back to a version', crypto.randomUUID(), (draft) => {
    const { passages, shapes, joinTiming, beds } = edit.highlight
    Object.assign(draft.highlight, { passages, shapes, joinTiming, beds })
    for (const setup of draft.setups) setup.regions = edit.setups.find((s) => s.id === setup.id)?.regions ?? setup.regions
    for (const layout of draft.layouts) Object.assign(layout, arranged(edit.layouts.find((l) => l.id === layout.id)))
  })
}

function arranged(layout: Layout | undefined): Partial<Layout> {
  return layout ? { arrangement: layout.arrangement, perShape: layout.perShape } : {}
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
    const region = draft.setups.flatMap((s) => s.regions).find((r) => r.id === id)
    if (region) recipe(region)
  })
}

/** Sets a region's bounds from pixels of a frame of size `frame`; they come to lie on even pixels. */
export function setRegionPixels(session: EditSession, frame: Size, id: RegionId, pixels: Rect, label: string, gesture: string): void {
  editRegion(session, label, gesture, id, (region) => {
    region.bounds = toFractions(toEvenPixels(toFractions(pixels, frame), frame), frame)
    region.focus = null
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
    setupOf(draft, setupId).regions.push({ id, role, name: nameForRole(role), bounds, focus: null })
  })
  return id
}

export function removeRegion(session: EditSession, id: RegionId): void {
  session.change('Remove region', crypto.randomUUID(), (draft) => {
    for (const setup of draft.setups) setup.regions = setup.regions.filter((r) => r.id !== id)
  })
}

export function nameForRole(role: string): string {
  return role.slice(0, 1).toUpperCase() + role.slice(1)
}

/** Drags a layout's seam to `position` px from the start of its stack, as solved in `shape`; holds for all shapes that share the arrangement. */
export function dragSeam(session: EditSession, layoutId: LayoutId, shape: Shape, seam: Seam, sizes: readonly number[], position: number, gesture: string): void {
  session.change('Move seam', gesture, (draft) => {
    const layout = layoutOf(draft, layoutId)
    const own = layout.perShape[shape.id]
    moveSeam((own ?? layout.arrangement).tree, seam, sizes, position)
  })
}

function eachPanel(node: Draft<LayoutNode>, visit: (panel: Extract<Draft<LayoutNode>, { kind: 'panel' }>) => void): void {
  if (node.kind === 'panel') visit(node)
  else if (node.kind === 'stack') for (const child of node.children) eachPanel(child.node, visit)
}

/** Changes what a panel shows, in the arrangement of every shape. */
export function setPanelRole(session: EditSession, id: PanelId, role: string): void {
  session.change('Change panel', crypto.randomUUID(), (draft) => {
    for (const layout of draft.layouts)
      for (const { tree } of [layout.arrangement, ...Object.values(layout.perShape)])
        eachPanel(tree, (panel) => {
          if (panel.id === id) panel.role = role
        })
  })
}

/** Turns the order of a layout's bands round: what was above is below. */
export function swapBands(session: EditSession, layoutId: LayoutId): void {
  session.change('Swap bands', crypto.randomUUID(), (draft) => {
    const layout = layoutOf(draft, layoutId)
    for (const { tree } of [layout.arrangement, ...Object.values(layout.perShape)]) if (tree.kind === 'stack') tree.children.reverse()
  })
}

/**
 * Shifts a panel's crop by a fraction of the frame and changes its zoom, for this passage. What the region's edge stops in `shape` is
 * not remembered, so that dragging back answers at once.
 */
export function nudgeCrop(session: EditSession, passageId: PassageId, shape: Shape, id: PanelId, by: { dx?: number; dy?: number; zoom?: number }, gesture: string): void {
  session.change('Move crop', gesture, (draft) => {
    const passage = passageOf(draft, passageId)
    const { video } = recordingOf(draft, passage.recordingId)
    const known = passage.corrections.find((c) => c.panelId === id) ?? { panelId: id, dx: 0, dy: 0, zoom: 1 }
    const wanted = { ...known, dx: known.dx + (by.dx ?? 0), dy: known.dy + (by.dy ?? 0), zoom: Math.min(8, Math.max(1, known.zoom * (by.zoom ?? 1))) }
    const placed = placePanels(draft, shape, passage).find((p) => p.panel.id === id)
    if (!placed?.region) return
    const cropWith = (c: Correction) => panelPicture(placed.panel, placed.rect, placed.region as Region, video, c).crop
    const crop = cropWith(wanted)
    const centred = cropWith({ ...wanted, dx: 0, dy: 0 })
    const { width, height } = video
    const stopped = { ...wanted, dx: (crop.x - centred.x) / width, dy: (crop.y - centred.y) / height }
    passage.corrections = [...passage.corrections.filter((c) => c.panelId !== id), stopped]
  })
}

/** Takes a panel's shift and zoom for this passage back. */
export function clearCrop(session: EditSession, passageId: PassageId, id: PanelId): void {
  session.change('Centre crop', crypto.randomUUID(), (draft) => {
    const passage = passageOf(draft, passageId)
    passage.corrections = passage.corrections.filter((c) => c.panelId !== id)
  })
}
