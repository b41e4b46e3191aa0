import type { Draft } from 'immer'
import { toEvenPixels, toFractions } from '@/core/geometry/evenGrid'
import type { Rect } from '@/core/geometry/rect'
import { placePanels } from '@/core/compose/compose'
import { panelPicture } from '@/core/compose/panelCrop'
import { moveSeam } from '@/core/layout/seams'
import type { Seam } from '@/core/layout/solve'
import type { Edit } from '@/core/model/edit'
import type { PanelId, RegionId } from '@/core/model/ids'
import type { LayoutNode } from '@/core/model/layout'
import type { Correction } from '@/core/model/passage'
import type { Region } from '@/core/model/region'
import type { Shape } from '@/core/model/shape'
import { frameStartMicros, snapToFrame } from '@/core/time/frameRate'
import { clampMicros, type Micros } from '@/core/time/micros'
import type { EditSession } from '@/store/editSession'
import { partsOf } from './benchContext'

/** Everything that can be done to an edit on the Bench. Changes with the same `gesture` are undone together. */

/** Moves the in or out point to the frame nearest to `t`; the two stay at least one frame apart and inside the recording. */
export function setCutPoint(session: EditSession, which: 'in' | 'out', t: Micros, gesture: string): void {
  session.change(which === 'in' ? 'Set in point' : 'Set out point', gesture, (draft) => {
    const { passage, recording } = partsOf(draft)
    const { frameRate, firstFrameMicros } = recording.video
    const snapped = snapToFrame(clampMicros(t, 0, recording.durationMicros), frameRate, firstFrameMicros)
    const frame = frameStartMicros(1, frameRate)
    if (which === 'in') passage.inMicros = Math.max(0, Math.min(snapped, passage.outMicros - frame))
    else passage.outMicros = Math.min(Math.max(snapped, passage.inMicros + frame), recording.durationMicros)
  })
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

function editRegion(session: EditSession, label: string, gesture: string, id: RegionId, recipe: (region: Draft<Region>, draft: Draft<Edit>) => void): void {
  session.change(label, gesture, (draft) => {
    const region = partsOf(draft).setup.regions.find((r) => r.id === id)
    if (region) recipe(region, draft)
  })
}

/** Sets a region's bounds from pixels of the frame; they come to lie on even pixels. */
export function setRegionPixels(session: EditSession, id: RegionId, pixels: Rect, label: string, gesture: string): void {
  editRegion(session, label, gesture, id, (region, draft) => {
    const { video } = partsOf(draft).recording
    region.bounds = toFractions(toEvenPixels(toFractions(pixels, video), video), video)
    region.focus = null
  })
}

export function setRegionRole(session: EditSession, id: RegionId, role: string): void {
  editRegion(session, 'Change role', crypto.randomUUID(), id, (region) => {
    region.role = role
    region.name = nameForRole(role)
  })
}

export function addRegion(session: EditSession, role: string): RegionId {
  const id = crypto.randomUUID() as RegionId
  session.change('Add region', id, (draft) => {
    const bounds = role === 'whole' ? { x: 0, y: 0, width: 1, height: 1 } : { x: 0.375, y: 0.375, width: 0.25, height: 0.25 }
    partsOf(draft).setup.regions.push({ id, role, name: nameForRole(role), bounds, focus: null })
  })
  return id
}

export function removeRegion(session: EditSession, id: RegionId): void {
  session.change('Remove region', crypto.randomUUID(), (draft) => {
    const { setup } = partsOf(draft)
    setup.regions = setup.regions.filter((r) => r.id !== id)
  })
}

export function nameForRole(role: string): string {
  return role.slice(0, 1).toUpperCase() + role.slice(1)
}

/** Drags a seam to `position` px from the start of its stack, as solved in `shape`; holds for all shapes that share the arrangement. */
export function dragSeam(session: EditSession, shape: Shape, seam: Seam, sizes: readonly number[], position: number, gesture: string): void {
  session.change('Move seam', gesture, (draft) => {
    const { layout } = partsOf(draft)
    const own = layout.perShape[shape.id]
    moveSeam((own ?? layout.arrangement).tree as LayoutNode, seam, sizes, position)
  })
}

function eachPanel(node: Draft<LayoutNode>, visit: (panel: Extract<Draft<LayoutNode>, { kind: 'panel' }>) => void): void {
  if (node.kind === 'panel') visit(node)
  else if (node.kind === 'stack') for (const child of node.children) eachPanel(child.node, visit)
}

/** Changes what a panel shows, in the arrangement of every shape. */
export function setPanelRole(session: EditSession, id: PanelId, role: string): void {
  session.change('Change panel', crypto.randomUUID(), (draft) => {
    const { layout } = partsOf(draft)
    for (const { tree } of [layout.arrangement, ...Object.values(layout.perShape)])
      eachPanel(tree, (panel) => {
        if (panel.id === id) panel.role = role
      })
  })
}

/** Turns the order of the bands round: what was above is below. */
export function swapBands(session: EditSession): void {
  session.change('Swap bands', crypto.randomUUID(), (draft) => {
    const { layout } = partsOf(draft)
    for (const { tree } of [layout.arrangement, ...Object.values(layout.perShape)]) if (tree.kind === 'stack') tree.children.reverse()
  })
}

/**
 * Shifts a panel's crop by a fraction of the frame and changes its zoom, for this passage. What the region's edge stops in `shape` is
 * not remembered, so that dragging back answers at once.
 */
export function nudgeCrop(session: EditSession, shape: Shape, id: PanelId, by: { dx?: number; dy?: number; zoom?: number }, gesture: string): void {
  session.change('Move crop', gesture, (draft) => {
    const { passage, recording } = partsOf(draft)
    const known = passage.corrections.find((c) => c.panelId === id) ?? { panelId: id, dx: 0, dy: 0, zoom: 1 }
    const wanted = { ...known, dx: known.dx + (by.dx ?? 0), dy: known.dy + (by.dy ?? 0), zoom: Math.min(8, Math.max(1, known.zoom * (by.zoom ?? 1))) }
    const placed = placePanels(draft, shape, passage).find((p) => p.panel.id === id)
    if (!placed?.region) return
    const cropWith = (c: Correction) => panelPicture(placed.panel, placed.rect, placed.region as Region, recording.video, c).crop
    const crop = cropWith(wanted)
    const centred = cropWith({ ...wanted, dx: 0, dy: 0 })
    const { width, height } = recording.video
    const stopped = { ...wanted, dx: (crop.x - centred.x) / width, dy: (crop.y - centred.y) / height }
    passage.corrections = [...passage.corrections.filter((c) => c.panelId !== id), stopped]
  })
}

/** Takes a panel's shift and zoom for this passage back. */
export function clearCrop(session: EditSession, id: PanelId): void {
  session.change('Centre crop', crypto.randomUUID(), (draft) => {
    const { passage } = partsOf(draft)
    passage.corrections = passage.corrections.filter((c) => c.panelId !== id)
  })
}
