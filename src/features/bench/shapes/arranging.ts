import { current, type Draft } from 'immer'
import { panelPicture } from '@/core/compose/panelCrop'
import { placePanels } from '@/core/compose/placePanels'
import type { Rect } from '@/core/geometry/rect'
import { arrangementFor, insetInBase, turnsInto } from '@/core/layout/arrangementFor'
import { insetAt } from '@/core/layout/insets'
import { moveSeam } from '@/core/layout/seams'
import type { Seam } from '@/core/layout/solve'
import { arrangeFor, STARTING_LAYOUTS } from '@/core/layout/startingLayouts'
import { isPanel, panelsOf, replacePanels, sameStructure, withArea, withBand, withEqualBands, without } from '@/core/layout/tree'
import { layoutOf, passageOf, recordingOf, setupOf } from '@/core/model/edit'
import type { InsetId, LayoutId, PanelId, PassageId } from '@/core/model/ids'
import { newLayout, type Area, type Arrangement, type Layout } from '@/core/model/layout'
import { newPanel, type Panel } from '@/core/model/panel'
import { correctionFor, type Correction } from '@/core/model/passage'
import { newRecord } from '@/core/model/record'
import type { Region } from '@/core/model/region'
import type { Shape } from '@/core/model/shape'
import type { EditSession } from '../edits'

/** What can be done on the Bench to what you get. Changes with the same `gesture` are undone together. */

/** Where a change of places is made: in one shape, for all of them or for that one only. */
export interface Scope {
  shape: Shape
  only: boolean
}

/** The arrangement that a change made in a shape goes to; a shape that is to go its own way gets one of its own. `own`: it is that shape's. */
function arrangementAt(layout: Draft<Layout>, { shape, only }: Scope): { arrangement: Draft<Arrangement>; own: boolean } {
  if (only && !layout.perShape[shape.id]) layout.perShape[shape.id] = structuredClone(arrangementFor(current(layout), shape))
  const own = layout.perShape[shape.id]
  return own ? { arrangement: own, own: true } : { arrangement: layout.arrangement, own: false }
}

/** Every arrangement of a layout, changed at once: what a layout shows is the same in all shapes, where it lies need not be. */
function eachArrangement(session: EditSession, layoutId: LayoutId, label: string, change: (arrangement: Draft<Arrangement>) => Arrangement, gesture: string = crypto.randomUUID()): void {
  session.change(label, gesture, (draft) => {
    const layout = layoutOf(draft, layoutId)
    layout.arrangement = change(layout.arrangement)
    for (const [shapeId, own] of Object.entries(layout.perShape)) layout.perShape[shapeId] = change(own)
  })
}

/** Drags a seam to `position` px from the start of its stack, as solved in the scope's shape. Where that shape has other stacks than the rest, it goes its own way. */
export function dragSeam(session: EditSession, layoutId: LayoutId, scope: Scope, seam: Seam, position: number, gesture: string): void {
  session.change('Move seam', gesture, (draft) => {
    const layout = layoutOf(draft, layoutId)
    const shared = sameStructure(layout.arrangement.tree, arrangementFor(layout, scope.shape).tree)
    moveSeam(arrangementAt(layout, { ...scope, only: scope.only || !shared }).arrangement.tree, seam, position)
  })
}

/** Moves or resizes an inset to a rectangle, px of the scope's shape. */
export function placeInset(session: EditSession, layoutId: LayoutId, scope: Scope, id: InsetId, rect: Rect, gesture: string): void {
  session.change('Move inset', gesture, (draft) => {
    const layout = layoutOf(draft, layoutId)
    const { arrangement, own } = arrangementAt(layout, scope)
    const at = arrangement.insets.findIndex((i) => i.id === id)
    const known = arrangement.insets[at]
    if (!known) return
    const moved = insetAt(known, rect, scope.shape)
    arrangement.insets[at] = own ? moved : insetInBase(moved, scope.shape, turnsInto(arrangement.tree, scope.shape))
  })
}

/** Gives a shape an arrangement of its own, as it has it now. */
export function goOwnWay(session: EditSession, layoutId: LayoutId, shape: Shape): void {
  session.change(`Arrange ${shape.id} by itself`, crypto.randomUUID(), (draft) => void arrangementAt(layoutOf(draft, layoutId), { shape, only: true }))
}

/** Takes a shape's own arrangement back: it follows the others again. */
export function followOthers(session: EditSession, layoutId: LayoutId, shapeId: string): void {
  session.change(`As in all shapes: ${shapeId}`, crypto.randomUUID(), (draft) => {
    delete layoutOf(draft, layoutId).perShape[shapeId]
  })
}

/** Changes a panel in every shape. */
export function setPanel(session: EditSession, layoutId: LayoutId, id: PanelId, label: string, change: Partial<Panel>, gesture?: string): void {
  eachArrangement(session, layoutId, label, (a) => replacePanels(a, (p) => (p.id === id ? { ...p, ...change } : p)), gesture)
}

/** An arrangement to be used, and what it is called. */
export type Chosen = Pick<Layout, 'name' | 'arrangement' | 'perShape' | 'basedOn'>

/** The id of the `n`th panel of each role in a layout: a panel that stays keeps it, and with it what passages know about it. */
export function idsInUse({ arrangement }: Pick<Layout, 'arrangement'>): (role: string, n: number) => PanelId {
  const panels = panelsOf(arrangement)
  return (role, n) => panels.filter((p) => p.role === role)[n]?.id ?? (crypto.randomUUID() as PanelId)
}

/** Lays a passage out anew, or with `all` every passage that has the same layout. */
export function applyLayout(session: EditSession, passageId: PassageId, chosen: Chosen, all: boolean): void {
  const { layoutId } = passageOf(session.value, passageId)
  const shared = session.value.highlight.passages.some((p) => p.id !== passageId && p.layoutId === layoutId)
  const own = newLayout({ ...newRecord(new Date().toISOString()), id: crypto.randomUUID() as LayoutId, ownedBy: session.value.highlight.id, ...chosen })
  if (shared && !all) session.extend((draft) => void draft.layouts.push(own))
  session.change(`Lay out: ${chosen.name}`, crypto.randomUUID(), (draft) => {
    if (shared && !all) passageOf(draft, passageId).layoutId = own.id
    else Object.assign(layoutOf(draft, layoutId), chosen)
  })
}

/** People by the roles that they have in setups. */
const PEOPLE: ReadonlySet<string> = new Set(['face', 'speaker'])
/** By how many people a setup has and nothing else to show. */
const FOR_PEOPLE: Record<number, string> = { 2: 'two-people', 3: 'three-bands', 4: 'four-bands' }

/** Lays a passage out anew where its layout asks for a region that its setup does not have any more: people in equal parts, else somebody over what happens. */
export function suitLayout(session: EditSession, passageId: PassageId, gesture: string): void {
  const { layoutId, setupId } = passageOf(session.value, passageId)
  const roles = setupOf(session.value, setupId).regions.map((r) => r.role)
  const layout = layoutOf(session.value, layoutId)
  if (panelsOf(layout.arrangement).every(({ role }) => role === 'whole' || roles.includes(role))) return
  const people = roles.filter((role) => PEOPLE.has(role)).length
  const id = roles.length === people ? FOR_PEOPLE[Math.min(4, people)] : undefined
  const starting = STARTING_LAYOUTS.find((s) => s.id === id) ?? STARTING_LAYOUTS[0]
  if (!starting) return
  const arrangement = arrangeFor(starting, roles, idsInUse(layout), () => crypto.randomUUID() as InsetId)
  session.change(`Lay out: ${starting.name}`, gesture, (draft) => void Object.assign(layoutOf(draft, layoutId), { name: starting.name, arrangement, perShape: {}, basedOn: null }))
}

/** Says that a working copy is now the same as a kept layout. */
export function baseLayoutOn(session: EditSession, layoutId: LayoutId, { id, name, tags }: Layout): void {
  session.change('Keep layout', crypto.randomUUID(), (draft) => void Object.assign(layoutOf(draft, layoutId), { name, tags, basedOn: id }))
}

/** Two panels change places. */
export function swapPanels(session: EditSession, layoutId: LayoutId, one: PanelId, other: PanelId): void {
  eachArrangement(session, layoutId, 'Swap panels', (arrangement) => {
    const panels = panelsOf(arrangement)
    const [a, b] = [one, other].map((id) => panels.find((p) => p.id === id))
    return a && b ? replacePanels(arrangement, (p) => (p.id === one ? b : p.id === other ? a : p)) : arrangement
  })
}

/** Turns the order of a layout's bands round: what was above is below. */
export function swapBands(session: EditSession, layoutId: LayoutId): void {
  eachArrangement(session, layoutId, 'Swap bands', (a) => (a.tree.kind === 'stack' ? { ...a, tree: { ...a.tree, children: a.tree.children.toReversed() } } : a))
}

/** Makes all bands of the outermost stack as large as each other. */
export function equalBands(session: EditSession, layoutId: LayoutId): void {
  eachArrangement(session, layoutId, 'Equal bands', (a) => ({ ...a, tree: withEqualBands(a.tree) }))
}

export function addBand(session: EditSession, layoutId: LayoutId, role: string): PanelId {
  const id = crypto.randomUUID() as PanelId
  eachArrangement(session, layoutId, 'Add band', (a) => ({ ...a, tree: withBand(a.tree, newPanel(id, role)) }))
  return id
}

/** Where words go: a title's area over everything, that of captions under it; or taken away. */
export function setArea(session: EditSession, layoutId: LayoutId, kind: Area['kind'], there: boolean): void {
  const words = kind === 'titleArea' ? 'title area' : 'caption area'
  eachArrangement(session, layoutId, there ? `Add ${words}` : `Remove ${words}`, (a) => ({ ...a, tree: there ? withArea(a.tree, { kind }) : (without(a.tree, (n) => n.kind === kind) ?? { kind: 'space' }) }))
}

/** A panel over the others: a landscape one in the upper right corner, to begin with. */
export function addInset(session: EditSession, layoutId: LayoutId, role: string): PanelId {
  const id = crypto.randomUUID() as PanelId
  const insetId = crypto.randomUUID() as InsetId
  eachArrangement(session, layoutId, 'Add inset', (a) => ({ ...a, insets: [...a.insets, { id: insetId, anchor: 'ne', dx: -0.04, dy: 0.06, width: 0.4, proportion: 16 / 9, panel: newPanel(id, role) }] }))
  return id
}

/** Takes a panel out of every shape, in a band or an inset; the rest of its stack takes its room. */
export function removePanel(session: EditSession, layoutId: LayoutId, id: PanelId): void {
  eachArrangement(session, layoutId, 'Remove panel', (a) => ({ ...a, tree: without(a.tree, isPanel(id)) ?? { kind: 'space' }, insets: a.insets.filter((i) => i.panel.id !== id) }))
}

/** What lies between the bands of the outermost stack, px. */
export function setGap(session: EditSession, layoutId: LayoutId, gap: number, gesture: string): void {
  eachArrangement(session, layoutId, 'Set gap', (a) => (a.tree.kind === 'stack' ? { ...a, tree: { ...a.tree, gap } } : a), gesture)
}

export function setBackdrop(session: EditSession, layoutId: LayoutId, backdrop: Arrangement['backdrop'], gesture?: string): void {
  eachArrangement(session, layoutId, 'Set backdrop', (a) => ({ ...a, backdrop }), gesture)
}

/**
 * Shifts a panel's crop by a fraction of the frame and changes its zoom, for this passage: in every shape, or in the scope's alone; one that
 * has its own keeps to itself. What the region's edge stops in that shape is not remembered, so that dragging back answers at once.
 */
export function nudgeCrop(session: EditSession, passageId: PassageId, { shape, only }: Scope, id: PanelId, by: { dx?: number; dy?: number; zoom?: number }, gesture: string): void {
  session.change('Move crop', gesture, (draft) => {
    const passage = passageOf(draft, passageId)
    const placed = placePanels(draft, shape, passage).find((p) => p.panel.id === id)
    if (!placed?.region) return
    const { video } = recordingOf(draft, placed.source.recordingId)
    const there = correctionFor(passage, id, shape.id)
    const known: Correction = { ...(there ?? { panelId: id, dx: 0, dy: 0, zoom: 1, shapeId: null }), ...(only && { shapeId: shape.id }) }
    const wanted = { ...known, dx: known.dx + (by.dx ?? 0), dy: known.dy + (by.dy ?? 0), zoom: Math.min(8, Math.max(1, known.zoom * (by.zoom ?? 1))) }
    const cropWith = (c: Correction) => panelPicture(placed.panel, placed.rect, placed.region as Region, video, c).crop
    const crop = cropWith(wanted)
    const centred = cropWith({ ...wanted, dx: 0, dy: 0 })
    const { width, height } = video
    const stopped = { ...wanted, dx: (crop.x - centred.x) / width, dy: (crop.y - centred.y) / height }
    passage.corrections = [...passage.corrections.filter((c) => c.panelId !== id || c.shapeId !== known.shapeId), stopped]
  })
}

/** Takes a panel's shift and zoom for this passage back, in every shape. */
export function clearCrop(session: EditSession, passageId: PassageId, id: PanelId): void {
  session.change('Centre crop', crypto.randomUUID(), (draft) => {
    const passage = passageOf(draft, passageId)
    passage.corrections = passage.corrections.filter((c) => c.panelId !== id)
  })
}
