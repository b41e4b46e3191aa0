import { clamp } from '../clamp'
import type { Rect, Size } from '../geometry/rect'
import { DEFAULT_BACKDROP } from '../model/backdrop'
import { ANCHORS, INSET_WIDTH } from '../model/inset'
import type { Area, Arrangement, LayoutNode, Stack, StackChild } from '../model/layout'
import { deriveOtherWay } from './arrangementFor'
import { hungOn } from './insets'
import { replacePanels } from './tree'
import { standingOf } from './wordAreas'

/** What may be wrong with an arrangement: in the order in which it would be told. */
export const ARRANGEMENT_FAULTS = [
  'missing',
  'repeats',
  'head-cut',
  'read-cut',
  'focus-cut',
  'twice',
  'small',
  'enlarged',
  'words',
] as const
export type ArrangementFault = (typeof ARRANGEMENT_FAULTS)[number]

/**
 * What an arrangement must have room for, px of the canvas: kinds of words, and marks that find their place; `fixed`:
 * marks that somebody put where they are.
 */
export interface RoomWanted {
  title: boolean
  captions: boolean
  marks: readonly Rect[]
  fixed: readonly Rect[]
}

/** An arrangement that a shape could have, and what it costs that it departs from what was chosen. */
export interface Candidate {
  arrangement: Arrangement
  departure: number
}

/** What changes are looked for: to an arrangement that comes from `base`, and has these faults in a shape. */
interface ChangesWanted {
  base: Arrangement
  shape: Size
  wanted: RoomWanted
  faults: ReadonlySet<ArrangementFault>
}

/** What it costs to depart from what was chosen. */
const DEPARTURE = {
  axis: 0.5,
  whole: 0.3,
  share: 0.12,
  strip: 0.35,
  corner: 0.15,
  smaller: 0.15,
  proportion: 0.2,
} as const

/** Everything that one change makes of an arrangement. */
export function* changesOf(
  { arrangement, departure }: Candidate,
  { base, shape, wanted, faults }: ChangesWanted,
): Generator<Candidate> {
  const { tree, insets } = arrangement
  const changed = (change: Partial<Arrangement>, cost: number): Candidate => ({
    arrangement: { ...arrangement, ...change },
    departure: departure + cost,
  })
  if (departure === 0 && !isHeld(base.tree))
    yield { arrangement: deriveOtherWay(base, shape), departure: DEPARTURE.axis }
  const panels = new Set<string>()
  replacePanels(arrangement, (panel) => {
    if (panel.fit === 'fill' && !panel.held && !insets.some((i) => i.panel.id === panel.id)) panels.add(panel.id)
    return panel
  })
  for (const id of panels)
    yield {
      arrangement: overGround(replacePanels(arrangement, (p) => (p.id === id ? { ...p, fit: 'whole' } : p))),
      departure: departure + DEPARTURE.whole,
    }
  // Words alone have more use for room of their own than for bands of another size, unless they have that already.
  const onlyWords = [...faults].every((f) => f === 'words')
  if (!onlyWords || departure > 0)
    for (const other of otherShares(tree)) yield changed({ tree: other }, DEPARTURE.share)
  for (const inset of insets) {
    if (inset.held) continue
    const withInset = (other: typeof inset) => insets.map((i) => (i.id === inset.id ? other : i))
    for (const anchor of ANCHORS)
      if (anchor !== inset.anchor && anchor !== 'c')
        yield changed({ insets: withInset(hungOn(inset, anchor)) }, DEPARTURE.corner)
    for (const share of SMALLER)
      yield changed(
        { insets: withInset({ ...inset, width: clamp(inset.width * share, INSET_WIDTH) }) },
        DEPARTURE.smaller,
      )
    for (const proportion of PROPORTIONS) {
      // As large as it was.
      const width = clamp(inset.width * Math.sqrt(proportion / inset.proportion), INSET_WIDTH)
      if (proportion !== inset.proportion)
        yield changed({ insets: withInset({ ...inset, proportion, width }) }, DEPARTURE.proportion)
    }
  }
  if (faults.has('words') && !isHeld(tree))
    for (const { node, strips } of withStrips(tree, shape, wanted))
      yield { arrangement: overGround({ ...arrangement, tree: node }), departure: departure + strips * DEPARTURE.strip }
}

/** Where a picture does not fill the canvas any more, a blurred one is behind it, unless something else was chosen. */
function overGround(arrangement: Arrangement): Arrangement {
  return arrangement.backdrop === DEFAULT_BACKDROP ||
    JSON.stringify(arrangement.backdrop) === JSON.stringify(DEFAULT_BACKDROP)
    ? { ...arrangement, backdrop: { kind: 'blur', role: 'whole', strength: 0.7, darken: 0.35 } }
    : arrangement
}

const isHeld = (node: LayoutNode): boolean =>
  node.kind === 'stack' && (node.held === true || node.children.some((c) => isHeld(c.node)))

const SMALLER = [0.8, 0.6, 1.2] as const
/** Width over height of a window: lying, as high as wide, upright. */
const PROPORTIONS = [16 / 9, 4 / 3, 1, 0.75] as const
/** How much larger or smaller one child of a stack becomes. */
const SHARES = [0.6, 0.8, 1.35] as const

/** A tree with one child of one of its stacks larger or smaller. */
function* otherShares(node: LayoutNode): Generator<LayoutNode> {
  if (node.kind !== 'stack') return
  const withChild = (i: number, child: StackChild): Stack => ({
    ...node,
    children: node.children.map((c, k) => (k === i ? child : c)),
  })
  for (const [i, child] of node.children.entries()) {
    if (!node.held && node.children.length > 1 && ['panel', 'stack'].includes(child.node.kind))
      for (const share of SHARES) {
        const extent = scaled(child.extent, share)
        if (extent) yield withChild(i, { ...child, extent })
      }
    for (const other of otherShares(child.node)) yield withChild(i, { ...child, node: other })
  }
}

function scaled(extent: StackChild['extent'], by: number): StackChild['extent'] | null {
  switch (extent.kind) {
    case 'weight':
      return { ...extent, weight: extent.weight * by }
    case 'fixed':
      return { ...extent, fraction: Math.min(0.9, extent.fraction * by) }
    case 'shaped':
      return {
        ...extent,
        proportion: Math.min(20, extent.proportion / by),
        most: Math.min(0.9, extent.most * Math.max(1, by)),
      }
  }
}

/** What strips for words take of the canvas's height, and beside pictures of its width. */
const STRIP = { titleArea: 0.15, captionArea: 0.12, beside: 0.36 } as const
/** What stays free above and below strips, where feeds lay their own things over the picture. */
const EDGES = {
  upright: { top: 0.07, bottom: 0.18 },
  even: { top: 0.02, bottom: 0.03 },
  lying: { top: 0.02, bottom: 0.07 },
} as const
/** What a row for marks is higher than they are, of the shorter side. */
const MARK_ROOM = 0.05

/** A tree with strips for words and marks that have no place: above, below, between, or beside its pictures. */
function* withStrips(
  tree: LayoutNode,
  shape: Size,
  wanted: RoomWanted,
): Generator<{ node: LayoutNode; strips: number }> {
  const title = wanted.title && !hasArea(tree, 'titleArea') ? [strip('titleArea')] : []
  const captions = wanted.captions && !hasArea(tree, 'captionArea') ? [strip('captionArea')] : []
  const edges = EDGES[standingOf(shape)]
  const highest = Math.max(0, ...wanted.marks.map((m) => m.height))
  const row = highest === 0 ? 0 : (highest + MARK_ROOM * Math.min(shape.width, shape.height)) / shape.height
  const [above, below] = [free(edges.top), free(Math.max(edges.bottom, row))]
  const rest: StackChild = { extent: { kind: 'weight', weight: 1 }, node: tree }
  const strips = title.length + captions.length
  if (title.length > 0) yield { node: column([...above, ...title, rest]), strips: 1 }
  if (captions.length > 0) yield { node: column([rest, ...captions, ...below]), strips: 1 }
  if (strips === 2) yield { node: column([...above, ...title, rest, ...captions, ...below]), strips: 2 }
  if (strips > 0) yield { node: column([rest, ...title, ...captions, ...below]), strips: strips + 0.2 }
  if (strips > 0 && shape.width > 0.9 * shape.height) {
    const words = column([...free(0.1), ...title, ...captions, ...free(Math.max(0.1, row))])
    yield {
      node: {
        kind: 'stack',
        axis: 'row',
        gap: 0,
        children: [rest, { extent: { kind: 'fixed', fraction: STRIP.beside }, node: words }],
      },
      strips,
    }
  }
  if (row > 0) yield { node: column([rest, ...free(Math.max(row, edges.bottom))]), strips: 1 }
  if (tree.kind !== 'stack' || tree.axis !== 'column') return
  const between = [title, captions, [...title, ...captions], [...title, ...captions, ...free(row)], free(row)]
  for (const [n, added] of between.entries())
    if (added.length > 0 && (n !== 2 || strips === 2))
      for (let i = 1; i < tree.children.length; i++)
        yield {
          node: { ...tree, children: [...tree.children.slice(0, i), ...added, ...tree.children.slice(i)] },
          strips: added.length,
        }
}

const strip = (kind: Area['kind']): StackChild => ({ extent: { kind: 'fixed', fraction: STRIP[kind] }, node: { kind } })
const free = (fraction: number): StackChild[] =>
  fraction > 0 ? [{ extent: { kind: 'fixed', fraction }, node: { kind: 'space' } }] : []
const column = (children: StackChild[]): LayoutNode => ({ kind: 'stack', axis: 'column', gap: 0, children })

function hasArea(node: LayoutNode, kind: Area['kind']): boolean {
  return node.kind === 'stack' ? node.children.some((c) => hasArea(c.node, kind)) : node.kind === kind
}
