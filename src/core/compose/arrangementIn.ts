import { clamp } from '../clamp'
import { arrangementFor, derive, deriveOtherWay } from '../layout/arrangementFor'
import { hungOn } from '../layout/insets'
import { markRect } from '../layout/markRects'
import { replacePanels } from '../layout/tree'
import { standingOf, wordArea } from '../layout/wordAreas'
import { DEFAULT_BACKDROP } from '../model/backdrop'
import { layoutOf, recordingOf, setupOf, type Edit } from '../model/edit'
import { ANCHORS, INSET_WIDTH } from '../model/inset'
import type { Area, Arrangement, Layout, LayoutNode, Stack, StackChild } from '../model/layout'
import type { Passage } from '../model/passage'
import { isHung, type HungMark } from '../model/pictureMark'
import type { Setup } from '../model/setup'
import type { Shape } from '../model/shape'
import {
  judgePictures,
  judgeWords,
  type ArrangementFault,
  type Judgement,
  type PictureJudgement,
  type RoomWanted,
  type WordAreas,
} from './judgeArrangement'
import { placeArrangement } from './placeArrangement'

/** The arrangement that a shape has in a passage, and how good it is. */
export interface Answer extends Judgement {
  arrangement: Arrangement
}

/** So many changes are made one after the other, each the one that helps most. */
const MAX_CHANGES = 4
/** So many of the best are followed: one change alone may make worse what two together mend. */
const BEAM = 3

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

/** No other arrangement of the same panels has what these lack. */
const UNMENDABLE: readonly ArrangementFault[] = ['missing', 'repeats']

interface Candidate {
  arrangement: Arrangement
  departure: number
}

/** Marks that an arrangement is chosen for; more are put where there is room. */
const MAX_MARKS = 6

/** What a highlight lays over its pictures and leaves the place of to us. */
function roomWanted({ highlight: { words, marks }, imageFiles }: Edit, shape: Shape): RoomWanted {
  const hung = marks.filter(isHung)
  const rectsOf = (some: readonly HungMark[]) => some.slice(0, MAX_MARKS).map((m) => markRect(m, imageFiles, shape))
  return {
    title: words.titles.length > 0,
    captions: words.captions.shown && words.cues.length > 0,
    marks: rectsOf(hung.filter((m) => m.findsPlace)),
    fixed: rectsOf(hung.filter((m) => !m.findsPlace)),
  }
}

/**
 * How a passage's layout is arranged in a shape. A layout that adapts is changed, where what its regions show would be
 * cut, hidden, doubled, too small or written over, by the fewest changes that mend it; what somebody placed stays. The
 * same edit gives the same arrangement.
 */
export function arrangementIn(edit: Edit, passage: Passage, shape: Shape): Arrangement {
  const layout = layoutOf(edit, passage.layoutId)
  return layout.adapts ? answerIn(edit, passage, shape).arrangement : arrangementFor(layout, shape)
}

/** {@link arrangementIn} with how good it is and where words go; for a layout that adapts. */
export function answerIn(edit: Edit, passage: Passage, shape: Shape): Answer {
  const layout = layoutOf(edit, passage.layoutId)
  const wanted = roomWanted(edit, shape)
  const known = answers.get(layout) ?? []
  answers.set(layout, known)
  const records = recordsOf(edit, passage)
  const key = keyOf(passage, shape, wanted)
  const cached = known.find((k) => k.key === key && k.records.every((r, i) => r === records[i]))
  if (cached) return cached.answer
  const answer =
    passage.corrections.length === 0
      ? solveFor(edit, layout, passage, shape, wanted)
      : corrected(edit, passage, shape, wanted, answerIn(edit, { ...passage, corrections: [] }, shape).arrangement)
  known.unshift({ key, records, answer })
  known.splice(MAX_ANSWERS)
  return answer
}

/** Crops that somebody moved change nothing about an arrangement; words keep clear of what they show. */
function corrected(edit: Edit, passage: Passage, shape: Shape, wanted: RoomWanted, arrangement: Arrangement): Answer {
  const placed = placeArrangement(edit, arrangement, shape, passage, { adapts: true })
  return { ...judgeWords(shape, arrangement, judgePictures(edit, shape, arrangement, placed), wanted), arrangement }
}

/** Where the words of a highlight go in a shape while a passage is on, px of the canvas. */
export function wordAreasIn(edit: Edit, passage: Passage, shape: Shape): WordAreas {
  const layout = layoutOf(edit, passage.layoutId)
  if (layout.adapts) return answerIn(edit, passage, shape).areas
  const arrangement = arrangementFor(layout, shape)
  return {
    titleArea: wordArea('titleArea', arrangement, shape),
    captionArea: wordArea('captionArea', arrangement, shape),
  }
}

/** Whether words or marks have to lie, in a shape, on what they should not, for want of another place. */
export function isCrowded(edit: Edit, passage: Passage, shape: Shape): boolean {
  return layoutOf(edit, passage.layoutId).adapts === true && answerIn(edit, passage, shape).faults.has('words')
}

/** Answers that are kept for a layout: as many as there may be shapes and passages unlike each other on the screen. */
const MAX_ANSWERS = 48

interface CachedAnswer {
  key: string
  records: readonly object[]
  answer: Answer
}

const answers = new WeakMap<Layout, CachedAnswer[]>()

/** Everything outside the layout that an answer depends on, by identity: edits are never changed in place. */
function recordsOf(edit: Edit, passage: Passage): readonly object[] {
  const feeds = passage.feeds.flatMap(({ plays }) => (plays.kind === 'recording' ? [plays.setupId] : []))
  const others = passage.feeds.some(({ plays }) => plays.kind === 'passage') ? [edit.highlight.passages] : []
  const setups: Setup[] = [passage.setupId, ...feeds].map((id) => setupOf(edit, id))
  return [...setups, ...others, recordingOf(edit, passage.recordingId)]
}

function keyOf({ regionShifts, corrections, cropPaths, feeds }: Passage, shape: Shape, wanted: RoomWanted): string {
  const own = [regionShifts, corrections, feeds].some((o) => o.length > 0)
    ? JSON.stringify([regionShifts, corrections, feeds])
    : ''
  return `${shape.id} ${shape.width} ${shape.height} ${JSON.stringify(wanted)} ${cropPaths.map((p) => p.regionId).join()} ${own}`
}

function solveFor(edit: Edit, layout: Layout, passage: Passage, shape: Shape, wanted: RoomWanted): Answer {
  const own = layout.perShape[shape.id]
  const look = (candidate: Candidate): Looked => {
    const placed = placeArrangement(edit, candidate.arrangement, shape, passage, { adapts: true })
    return { candidate, pictures: judgePictures(edit, shape, candidate.arrangement, placed) }
  }
  const judge = ({ candidate, pictures }: Looked): Judged => {
    const judged = judgeWords(shape, candidate.arrangement, pictures, wanted)
    return { ...judged, ...candidate, cost: judged.cost + candidate.departure }
  }
  const first = judge(look({ arrangement: own ?? derive(layout.arrangement, shape), departure: 0 }))
  if (own || UNMENDABLE.some((f) => first.faults.has(f))) return first
  let best = first
  let beam = [first]
  for (let n = 0; n < MAX_CHANGES && best.faults.size > 0; n++) {
    const looked = distinct(beam.flatMap((from) => [...changesOf(from, layout, shape, wanted)])).map(look)
    // Words only ever cost more: those with the best pictures first, and no further than another could be better.
    looked.sort((a, b) => leastCost(a) - leastCost(b))
    const next: Judged[] = []
    for (const candidate of looked) {
      if (leastCost(candidate) >= (next[BEAM - 1]?.cost ?? Infinity)) break
      if (next[0]?.faults.size === 0 && leastCost(candidate) >= next[0].cost) break
      next.push(judge(candidate))
      next.sort((a, b) => a.cost - b.cost).splice(BEAM)
    }
    beam = next
    if (next[0] && next[0].cost < best.cost - 1e-9) best = next[0]
  }
  // What mends nothing is not worth a change.
  return best.faults.size < first.faults.size ? best : first
}

/** Each arrangement once: the same changes can be made in another order. */
function distinct(candidates: readonly Candidate[]): Candidate[] {
  return [...new Map(candidates.map((c) => [JSON.stringify(c.arrangement), c])).values()]
}

interface Looked {
  candidate: Candidate
  pictures: PictureJudgement
}

type Judged = Answer & Candidate

const leastCost = ({ candidate, pictures }: Looked): number => pictures.cost + candidate.departure

/** Everything that one change makes of an arrangement. */
function* changesOf(from: Judged, layout: Layout, shape: Shape, wanted: RoomWanted): Generator<Candidate> {
  const { arrangement, departure, faults } = from
  const { tree, insets } = arrangement
  const changed = (change: Partial<Arrangement>, cost: number): Candidate => ({
    arrangement: { ...arrangement, ...change },
    departure: departure + cost,
  })
  if (departure === 0 && !isHeld(layout.arrangement.tree))
    yield { arrangement: deriveOtherWay(layout.arrangement, shape), departure: DEPARTURE.axis }
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
  shape: Shape,
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
