import { toEven } from '../geometry/evenGrid'
import { areaOf, intersection, scaleRect, type Rect, type Size } from '../geometry/rect'
import { arrangementFor } from '../layout/arrangementFor'
import { insetAt } from '../layout/insets'
import { markRect } from '../layout/markRects'
import { needsOf } from '../layout/needs'
import { wordArea } from '../layout/wordAreas'
import { layoutOf, recordingOf, setupOf, type Edit } from '../model/edit'
import type { Anchor, Hanging } from '../model/inset'
import type { Passage } from '../model/passage'
import { isHung, type HungMark } from '../model/pictureMark'
import type { Shape } from '../model/shape'
import { placeOnCanvas } from './panelCrop'
import { placePanels } from './placePanels'
import { regionIn } from './regionIn'

/** A part of the canvas, px, and how much it matters that nothing lies over it. */
interface Kept {
  rect: Rect
  matters: number
}

/** Where a mark lies: even pixels of the canvas, and the one of the nine points that it is nearest to. */
export interface MarkPlace {
  rect: Rect
  anchor: Anchor
}

const WORDS_MATTER = 0.9
const MARKS_MATTER = 1
/** Going from one corner of the canvas to another costs as much as covering so much of what matters most. */
const FAR_COSTS = 0.04
/** What is clear of an edge by this share of the shorter side looks put there. */
const MARGIN = 0.035
/** Only the anchor of what {@link insetAt} gives is wanted. */
const HANGING: Hanging = { anchor: 'c', dx: 0, dy: 0, width: 0.1, proportion: 1 }
/** Of passages that lie unlike each other so many are looked at, from the start: an edit is answered at once. */
const MAX_UNLIKE = 12
/** So much of what is to be left free is looked at: what matters most, and there the largest. */
const MAX_KEPT = 80
/** Places that are tried across and down. */
const TRIED = { across: 13, down: 25 }

/**
 * Where a mark lies in a shape: where somebody put it, else where the least that matters is under it in any passage,
 * and near its usual place. The same edit gives the same place.
 */
export function markPlace(edit: Edit, shape: Shape, mark: HungMark): MarkPlace {
  const found = mark.findsPlace ? placesFor(edit, shape).get(mark.id) : undefined
  return found ?? { rect: markRect(mark, edit.imageFiles, shape), anchor: mark.anchor }
}

const placed = new WeakMap<Edit, Map<string, Map<string, MarkPlace>>>()

/** The places of all marks that find theirs, made once for an edit and a shape. */
function placesFor(edit: Edit, shape: Shape): Map<string, MarkPlace> {
  const key = `${shape.id} ${shape.width} ${shape.height}`
  const shapes = placed.get(edit) ?? new Map<string, Map<string, MarkPlace>>()
  placed.set(edit, shapes)
  const cached = shapes.get(key)
  if (cached) return cached
  const kept = keptIn(edit, shape)
  const places = new Map<string, MarkPlace>()
  for (const mark of edit.highlight.marks) {
    if (!isHung(mark) || !mark.findsPlace) continue
    const usual = markRect(mark, edit.imageFiles, shape)
    const rect = leastCovering(usual, shape, kept)
    places.set(mark.id, { rect, anchor: insetAt(HANGING, rect, shape).anchor })
    kept.push({ rect, matters: MARKS_MATTER })
  }
  shapes.set(key, places)
  return places
}

const ownOf = ({ regionShifts, corrections, feeds }: Passage) => [regionShifts, corrections, feeds]

/** Whether pictures may lie elsewhere in a passage than its setup and its layout say. */
const liesByItself = (passage: Passage) => ownOf(passage).some((own) => own.length > 0)

/** Everything in a shape that something put over the picture should leave free: in any of the passages. */
function keptIn(edit: Edit, shape: Shape): Kept[] {
  const { passages, marks, words } = edit.highlight
  // What lies alike need be looked at once.
  const unlike = new Map(
    passages.map((p) => [`${p.setupId} ${p.layoutId} ${liesByItself(p) ? JSON.stringify(ownOf(p)) : ''}`, p]),
  )
  const kept = [
    ...[...unlike.values()]
      .slice(0, MAX_UNLIKE)
      .flatMap((passage) => [
        ...picturesOf(edit, shape, passage),
        ...wordsOf(edit, shape, passage, words.titles.length > 0, words.captions.shown && words.cues.length > 0),
      ]),
    ...marks.flatMap((m) =>
      isHung(m) && !m.findsPlace ? [{ rect: markRect(m, edit.imageFiles, shape), matters: MARKS_MATTER }] : [],
    ),
  ]
  if (kept.length <= MAX_KEPT) return kept
  return kept.sort((a, b) => b.matters - a.matters || areaOf(b.rect) - areaOf(a.rect)).slice(0, MAX_KEPT)
}

/** Wherever a panel shows what matters of any region, its own or not. */
function picturesOf(edit: Edit, shape: Shape, passage: Passage): Kept[] {
  return placePanels(edit, shape, passage).flatMap(({ picture, panel, region, source }) => {
    if (!picture || !region) return []
    const { width, height } = recordingOf(edit, source.recordingId).video
    const { regions } = setupOf(edit, source.setupId)
    // Where the passage has them; a path says where crops are aimed, which is no place by itself.
    const moved = { ...source.from, cropPaths: [] }
    return (regions.some((r) => r.id === region.id) ? regions : [...regions, region]).flatMap((r) =>
      needsOf(regionIn(moved, r, 0)).flatMap(({ rect, matters }) => {
        const seen = placeOnCanvas(scaleRect(rect, width, height), picture, panel)
        return seen ? [{ rect: seen, matters }] : []
      }),
    )
  })
}

function wordsOf(edit: Edit, shape: Shape, passage: Passage, titles: boolean, captions: boolean): Kept[] {
  const arrangement = arrangementFor(layoutOf(edit, passage.layoutId), shape)
  const area = (kind: 'titleArea' | 'captionArea') => ({
    rect: wordArea(kind, arrangement, shape),
    matters: WORDS_MATTER,
  })
  return [...(titles ? [area('titleArea')] : []), ...(captions ? [area('captionArea')] : [])]
}

/** Of places all over the canvas, the one that covers the least of what matters, and is near the usual one. */
function leastCovering(usual: Rect, canvas: Size, kept: readonly Kept[]): Rect {
  const margin = MARGIN * Math.min(canvas.width, canvas.height)
  const room = { x: canvas.width - usual.width, y: canvas.height - usual.height }
  const diagonal = Math.hypot(canvas.width, canvas.height)
  let best = usual
  let least = Infinity
  const consider = (x: number, y: number) => {
    const rect = { ...usual, x: toEven(x), y: toEven(y) }
    const covered = kept.reduce((sum, k) => sum + k.matters * share(rect, k.rect), 0)
    const cost = covered + (FAR_COSTS * Math.hypot(x - usual.x, y - usual.y)) / diagonal
    if (cost >= least - 1e-9) return
    least = cost
    best = rect
  }
  consider(usual.x, usual.y)
  const at = (i: number, of: number, length: number) =>
    length <= 2 * margin ? length / 2 : margin + (i / (of - 1)) * (length - 2 * margin)
  for (let j = 0; j < TRIED.down; j++)
    for (let i = 0; i < TRIED.across; i++) consider(at(i, TRIED.across, room.x), at(j, TRIED.down, room.y))
  return best
}

/** The share of a rectangle that another covers. */
function share(rect: Rect, by: Rect): number {
  const both = intersection(rect, by)
  return both ? (both.width * both.height) / (rect.width * rect.height) : 0
}
