import { current, isDraft, type Draft } from 'immer'
import { arrangementIn } from '@/core/compose/arrangementIn'
import { placePanels } from '@/core/compose/placePanels'
import type { SuitedLayout } from '@/core/compose/suitedLayouts'
import { bandsArrangement, lastArrangement, leapfrog, type Leapfrog } from '@/core/cut/leapfrog'
import { causeOf } from '@/core/findings/finding'
import { handleFindings } from '@/core/findings/layoutFindings'
import type { Rect } from '@/core/geometry/rect'
import { insetInBase, turnsInto } from '@/core/layout/arrangementFor'
import { insetAt } from '@/core/layout/insets'
import { moveSeam, nodeAt } from '@/core/layout/seams'
import type { Seam } from '@/core/layout/solve'
import {
  isPanel,
  panelsOf,
  replacePanels,
  sameStructure,
  withArea,
  withBand,
  withEqualBands,
  without,
} from '@/core/layout/tree'
import { layoutOf, passageOf, recordingOf, setupOf, type Edit } from '@/core/model/edit'
import { newId, type InsetId, type LayoutId, type PanelId, type PassageId } from '@/core/model/ids'
import { newLayout, type Area, type Arrangement, type Layout } from '@/core/model/layout'
import { newPanel, type Panel } from '@/core/model/panel'
import { correctionFor, type Correction } from '@/core/model/passage'
import { newRecord } from '@/core/model/record'
import type { Shape } from '@/core/model/shape'
import { timeMapOf } from '@/core/time/timeMap'
import { command, type Host } from './command'
import { MAX_ACCEPTED } from './highlight'
import { addRecords } from './records'

/** What you get: layouts, their bands, insets and panels, and how panels crop. */

/** Where a change of places is made: in one shape of a passage, for all of them or for that one only. */
export interface Scope {
  passageId: PassageId
  shape: Shape
  only: boolean
}

/** An edit as it is in the middle of a change: what is placed is remembered by record, and a draft's still change. */
const asItIs = (draft: Draft<Edit>): Edit => (isDraft(draft) ? current(draft) : draft)

/** A shape's arrangement as a passage shows it. */
function shownIn(draft: Draft<Edit>, { passageId, shape }: Pick<Scope, 'passageId' | 'shape'>): Arrangement {
  const edit = asItIs(draft)
  return arrangementIn(edit, passageOf(edit, passageId), shape)
}

/**
 * The arrangement that a change made in a shape goes to; a shape that is to go its own way gets one of its own.
 * `own`: it is that shape's.
 */
function arrangementAt(draft: Draft<Edit>, scope: Scope): { arrangement: Draft<Arrangement>; own: boolean } {
  const { shape, only } = scope
  const layout = layoutOf(draft, passageOf(draft, scope.passageId).layoutId)
  if (only && !layout.perShape[shape.id]) layout.perShape[shape.id] = structuredClone(shownIn(draft, scope))
  const own = layout.perShape[shape.id]
  return own ? { arrangement: own, own: true } : { arrangement: layout.arrangement, own: false }
}

/**
 * Changes every arrangement of a layout at once: what a layout shows is the same in all shapes, where it lies need
 * not be.
 */
function eachArrangement(
  draft: Draft<Edit>,
  layoutId: LayoutId,
  change: (arrangement: Draft<Arrangement>) => Arrangement,
): void {
  const layout = layoutOf(draft, layoutId)
  layout.arrangement = change(layout.arrangement)
  for (const [shapeId, own] of Object.entries(layout.perShape)) layout.perShape[shapeId] = change(own)
}

/**
 * Drags a seam to `position` px from the start of its stack, as solved in the scope's shape. Where that shape has
 * other stacks than the rest, it goes its own way.
 */
export const dragSeam = command<{ scope: Scope; seam: Seam; position: number }>({
  id: 'drag-seam',
  label: 'Move seam',
  apply: (draft, { scope, seam, position }) => {
    const layout = layoutOf(draft, passageOf(draft, scope.passageId).layoutId)
    const shared = sameStructure(layout.arrangement.tree, shownIn(draft, scope).tree)
    const { arrangement } = arrangementAt(draft, { ...scope, only: scope.only || !shared })
    moveSeam(arrangement.tree, seam, position)
    const stack = nodeAt(arrangement.tree, seam.path)
    if (layout.adapts && stack.kind === 'stack') stack.held = true
  },
})

/** Moves or resizes an inset to a rectangle, px of the scope's shape. */
export const placeInset = command<{ scope: Scope; id: InsetId; rect: Rect }>({
  id: 'place-inset',
  label: 'Move inset',
  apply: (draft, { scope, id, rect }) => {
    const { adapts } = layoutOf(draft, passageOf(draft, scope.passageId).layoutId)
    const { arrangement, own } = arrangementAt(draft, scope)
    const at = arrangement.insets.findIndex((i) => i.id === id)
    const inset = arrangement.insets[at]
    if (!inset) return
    const moved = { ...insetAt(inset, rect, scope.shape), ...(adapts && { held: true }) }
    arrangement.insets[at] = own ? moved : insetInBase(moved, scope.shape, turnsInto(arrangement.tree, scope.shape))
  },
})

/** Gives a shape an arrangement of its own. */
export const goOwnWay = command<{ layoutId: LayoutId; shapeId: string; arrangement: Arrangement }>({
  id: 'go-own-way',
  label: ({ shapeId }) => `Own arrangement for ${shapeId}`,
  apply: (draft, { layoutId, shapeId, arrangement }) => {
    layoutOf(draft, layoutId).perShape[shapeId] = structuredClone(arrangement)
  },
})

/** Takes a shape's own arrangement back: it follows the others again. */
export const followOthers = command<{ layoutId: LayoutId; shapeId: string }>({
  id: 'follow-others',
  label: ({ shapeId }) => `Match ${shapeId} to the others`,
  apply: (draft, { layoutId, shapeId }) => {
    delete layoutOf(draft, layoutId).perShape[shapeId]
  },
})

/** What somebody sets about how a panel fits, so that it stays. */
const FITTING: readonly (keyof Panel)[] = ['fit', 'zoom', 'turn']

/** Lets each shape be arranged by what its regions show, or keeps to the rule. */
export const setAdapts = command<{ layoutId: LayoutId; adapts: boolean }>({
  id: 'set-adapts',
  label: ({ adapts }) => (adapts ? 'Adapt to what is shown' : 'Do not adapt'),
  apply: (draft, { layoutId, adapts }) => {
    layoutOf(draft, layoutId).adapts = adapts
  },
})

/** Changes a panel in every shape. */
export const setPanel = command<{ layoutId: LayoutId; id: PanelId; label: string; change: Partial<Panel> }>({
  id: 'set-panel',
  label: ({ label }) => label,
  apply: (draft, { layoutId, id, change }) => {
    const held = layoutOf(draft, layoutId).adapts && FITTING.some((k) => k in change)
    const set = { ...change, ...(held && { held: true }) }
    eachArrangement(draft, layoutId, (a) => replacePanels(a, (p) => (p.id === id ? { ...p, ...set } : p)))
  },
})

/** An arrangement to be used, and what it is called. */
export type Chosen = Pick<Layout, 'name' | 'arrangement' | 'perShape' | 'basedOn'> & { adapts: boolean }

/**
 * The id of the `n`th panel of each role in a layout: a panel that stays keeps it, and with it what passages know
 * about it.
 */
export function idsInUse({ arrangement }: Pick<Layout, 'arrangement'>): (role: string, n: number) => PanelId {
  const panels = panelsOf(arrangement)
  return (role, n) => panels.filter((p) => p.role === role)[n]?.id ?? newId<PanelId>()
}

export const layOut = command<{ passageId: PassageId; layoutId: LayoutId; chosen: Chosen | null; name: string }>({
  id: 'lay-out',
  label: ({ name }) => `Lay out: ${name}`,
  apply: (draft, { passageId, layoutId, chosen }) => {
    passageOf(draft, passageId).layoutId = layoutId
    if (chosen) Object.assign(layoutOf(draft, layoutId), chosen)
  },
})

/** Lays a passage out anew, or with `all` every passage that has the same layout. */
export function applyLayout(host: Host, passageId: PassageId, chosen: Chosen, all: boolean): void {
  const { layoutId } = passageOf(host.value, passageId)
  const shared = host.value.highlight.passages.some((p) => p.id !== passageId && p.layoutId === layoutId)
  if (!shared || all) return void layOut(host, { passageId, layoutId, chosen, name: chosen.name })
  const own = newLayout({
    ...newRecord(new Date().toISOString()),
    id: newId<LayoutId>(),
    ownedBy: host.value.highlight.id,
    ...chosen,
  })
  addRecords(host, { layouts: [own] })
  layOut(host, { passageId, layoutId: own.id, chosen: null, name: chosen.name })
}

/** Whether a passage's layout asks for a region that its setup does not have. */
export function lacksRegion(edit: Edit, passageId: PassageId): boolean {
  const { layoutId, setupId } = passageOf(edit, passageId)
  const roles = setupOf(edit, setupId).regions.map((r) => r.role)
  return panelsOf(layoutOf(edit, layoutId).arrangement).some(({ role }) => role !== 'whole' && !roles.includes(role))
}

/** A starting layout as it is chosen. */
export const chosenAs = ({ starting: { name }, arrangement }: SuitedLayout): Chosen => ({
  name,
  arrangement,
  perShape: {},
  basedOn: null,
  adapts: true,
})

/** Says that a working copy is now the same as a kept layout. */
export const baseLayoutOn = command<{ layoutId: LayoutId; kept: Layout }>({
  id: 'base-layout-on',
  label: 'Keep layout',
  apply: (draft, { layoutId, kept: { id, name, tags } }) =>
    void Object.assign(layoutOf(draft, layoutId), { name, tags, basedOn: id }),
})

/** Two panels change places. */
export const swapPanels = command<{ layoutId: LayoutId; one: PanelId; other: PanelId }>({
  id: 'swap-panels',
  label: 'Swap panels',
  apply: (draft, { layoutId, one, other }) =>
    eachArrangement(draft, layoutId, (arrangement) => {
      const panels = panelsOf(arrangement)
      const [a, b] = [one, other].map((id) => panels.find((p) => p.id === id))
      if (!a || !b) return arrangement
      const swapped = new Map([
        [one, b],
        [other, a],
      ])
      return replacePanels(arrangement, (p) => swapped.get(p.id) ?? p)
    }),
})

/** Turns the order of a layout's bands round: what was above is below. */
export const swapBands = command<{ layoutId: LayoutId }>({
  id: 'swap-bands',
  label: 'Swap bands',
  apply: (draft, { layoutId }) =>
    eachArrangement(draft, layoutId, (a) =>
      a.tree.kind === 'stack' ? { ...a, tree: { ...a.tree, children: a.tree.children.toReversed() } } : a,
    ),
})

/** Makes all bands of the outermost stack as large as each other. */
export const equalBands = command<{ layoutId: LayoutId }>({
  id: 'equal-bands',
  label: 'Equal bands',
  apply: (draft, { layoutId }) => eachArrangement(draft, layoutId, (a) => ({ ...a, tree: withEqualBands(a.tree) })),
})

export const addBand = command<{ layoutId: LayoutId; id: PanelId; role: string }>({
  id: 'add-band',
  label: 'Add band',
  apply: (draft, { layoutId, id, role }) =>
    eachArrangement(draft, layoutId, (a) => ({ ...a, tree: withBand(a.tree, newPanel(id, role)) })),
})

/** Where words go: a title's area over everything, that of captions under it; or taken away. */
export const setArea = command<{ layoutId: LayoutId; kind: Area['kind']; there: boolean }>({
  id: 'set-area',
  label: ({ kind, there }) => `${there ? 'Add' : 'Remove'} ${kind === 'titleArea' ? 'title area' : 'caption area'}`,
  apply: (draft, { layoutId, kind, there }) =>
    eachArrangement(draft, layoutId, (a) => ({
      ...a,
      tree: there ? withArea(a.tree, { kind }) : (without(a.tree, (n) => n.kind === kind) ?? { kind: 'space' }),
    })),
})

/** A panel over the others: a landscape one in the upper right corner, to begin with. */
export const addInset = command<{ layoutId: LayoutId; id: PanelId; insetId: InsetId; role: string }>({
  id: 'add-inset',
  label: 'Add inset',
  apply: (draft, { layoutId, id, insetId, role }) =>
    eachArrangement(draft, layoutId, (a) => ({
      ...a,
      insets: [
        ...a.insets,
        { id: insetId, anchor: 'ne', dx: -0.04, dy: 0.06, width: 0.4, proportion: 16 / 9, panel: newPanel(id, role) },
      ],
    })),
})

/** Takes a panel out of every shape, in a band or an inset; the rest of its stack takes its room. */
export const removePanel = command<{ layoutId: LayoutId; id: PanelId }>({
  id: 'remove-panel',
  label: 'Remove panel',
  apply: (draft, { layoutId, id }) =>
    eachArrangement(draft, layoutId, (a) => ({
      ...a,
      tree: without(a.tree, isPanel(id)) ?? { kind: 'space' },
      insets: a.insets.filter((i) => i.panel.id !== id),
    })),
})

/** What lies between the bands of the outermost stack, px. */
export const setGap = command<{ layoutId: LayoutId; gap: number }>({
  id: 'set-gap',
  label: 'Set gap',
  apply: (draft, { layoutId, gap }) =>
    eachArrangement(draft, layoutId, (a) => (a.tree.kind === 'stack' ? { ...a, tree: { ...a.tree, gap } } : a)),
})

export const setBackdrop = command<{ layoutId: LayoutId; backdrop: Arrangement['backdrop'] }>({
  id: 'set-backdrop',
  label: 'Set backdrop',
  apply: (draft, { layoutId, backdrop }) => eachArrangement(draft, layoutId, (a) => ({ ...a, backdrop })),
})

/**
 * Shifts a panel's crop by a fraction of the frame and changes its zoom, for this passage: in every shape, or in the
 * scope's alone; one that has its own keeps to itself. What the region's edge stops in that shape is not remembered,
 * so that dragging back answers at once.
 */
export const nudgeCrop = command<{
  passageId: PassageId
  scope: Omit<Scope, 'passageId'>
  id: PanelId
  by: { dx?: number; dy?: number; zoom?: number }
}>({
  id: 'nudge-crop',
  label: 'Move crop',
  apply: (draft, { passageId, scope: { shape, only }, id, by }) => {
    const edit = asItIs(draft)
    const passage = passageOf(edit, passageId)
    const placed = placePanels(edit, shape, passage).find((p) => p.panel.id === id)
    const { video } = recordingOf(edit, placed?.source.recordingId ?? passage.recordingId)
    const there = correctionFor(passage, id, shape.id)
    const now: Correction = {
      ...(there ?? { panelId: id, dx: 0, dy: 0, zoom: 1, shapeId: null }),
      ...(only && { shapeId: shape.id }),
    }
    const wanted = {
      ...now,
      dx: now.dx + (by.dx ?? 0),
      dy: now.dy + (by.dy ?? 0),
      zoom: Math.min(8, Math.max(1, now.zoom * (by.zoom ?? 1))),
    }
    const crop = placed?.pictureWith(wanted)?.crop
    const centred = placed?.pictureWith({ ...wanted, dx: 0, dy: 0 })?.crop
    if (!crop || !centred) return
    const stopped = { ...wanted, dx: (crop.x - centred.x) / video.width, dy: (crop.y - centred.y) / video.height }
    setCorrection.apply(draft, { passageId, correction: stopped })
  },
})

/** Puts a panel's shift and zoom in a passage, in one shape or in all, in the place of the one it has there. */
export const setCorrection = command<{ passageId: PassageId; correction: Correction }>({
  id: 'set-correction',
  label: 'Move crop',
  apply: (draft, { passageId, correction }) => {
    const passage = passageOf(draft, passageId)
    passage.corrections = [
      ...passage.corrections.filter((c) => c.panelId !== correction.panelId || c.shapeId !== correction.shapeId),
      correction,
    ]
  },
})

/** Takes a panel's shift and zoom for this passage back, in every shape. */
export const clearCrop = command<{ passageId: PassageId; id: PanelId }>({
  id: 'clear-crop',
  label: 'Centre crop',
  apply: (draft, { passageId, id }) => {
    const passage = passageOf(draft, passageId)
    passage.corrections = passage.corrections.filter((c) => c.panelId !== id)
  },
})

export const takeTurns = command<{ how: Leapfrog; layoutIds: readonly LayoutId[] }>({
  id: 'leapfrog',
  label: 'Leapfrog',
  apply: (draft, { how, layoutIds }) => {
    const { highlight } = draft
    highlight.joinTiming = 'hold'
    highlight.passages = leapfrog(highlight.passages, how, layoutIds)
    // Which shots are short has been told and answered before: it is not told of again, join by join.
    const answered = handleFindings(draft, timeMapOf(highlight)).map(causeOf)
    highlight.accepted = [...new Set([...highlight.accepted, ...answered])].slice(-MAX_ACCEPTED)
  },
})

/** Lays a highlight's passages out in bands that take turns, as one step. */
export function applyLeapfrog(host: Host, how: Leapfrog): void {
  const base = newRecord(new Date().toISOString())
  const arrangements = [
    ...Array.from({ length: how.bands }, (_, n) => bandsArrangement(how, n + 1)),
    lastArrangement(how),
  ]
  const nameOf = (n: number) => (n < how.bands ? `Leapfrog, ${n + 1} of ${how.bands} bands` : 'Leapfrog, last shot')
  const layouts = arrangements.map((arrangement, n) =>
    newLayout({ ...base, id: newId<LayoutId>(), name: nameOf(n), ownedBy: host.value.highlight.id, arrangement }),
  )
  addRecords(host, { layouts })
  takeTurns(host, { how, layoutIds: layouts.map((l) => l.id) })
}
