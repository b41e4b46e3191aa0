import type { Rect } from '../geometry/rect'
import { insetAt } from '../layout/insets'
import { markRect } from '../layout/markRects'
import { MATTERS } from '../layout/needs'
import { layoutOf, type Edit } from '../model/edit'
import type { Anchor, Hanging } from '../model/inset'
import type { Passage } from '../model/passage'
import { isHung, type HungMark } from '../model/pictureMark'
import type { Shape } from '../model/shape'
import { answerIn, wordAreasIn } from './arrangementIn'
import { FreeGround, type Kept } from './freeGround'
import { placeOnCanvas } from './panelCrop'
import { thingsIn } from './placeArrangement'
import { placePanels } from './placePanels'

/** Where a mark lies: even pixels of the canvas, and the one of the nine points that it is nearest to. */
export interface MarkPlace {
  rect: Rect
  anchor: Anchor
}

const WORDS_MATTER = 1
const MARKS_MATTER = 1
/** Only the anchor of what {@link insetAt} gives is wanted. */
const HANGING: Hanging = { anchor: 'c', dx: 0, dy: 0, width: 0.1, proportion: 1 }
/** Of passages that lie unlike each other so many are looked at, from the start: an edit is answered at once. */
const MAX_UNLIKE = 12

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
  const ground = groundOf(edit, shape)
  const places = new Map<string, MarkPlace>()
  for (const mark of edit.highlight.marks) {
    if (!isHung(mark) || !mark.findsPlace) continue
    const usual = markRect(mark, edit.imageFiles, shape)
    const { rect } = ground.placeMark(usual)
    places.set(mark.id, { rect, anchor: insetAt(HANGING, rect, shape).anchor })
    ground.add(rect, MARKS_MATTER)
  }
  shapes.set(key, places)
  return places
}

const ownOf = ({ regionShifts, corrections, feeds }: Passage) => [regionShifts, corrections, feeds]

/** Whether pictures may lie elsewhere in a passage than its setup and its layout say. */
const liesByItself = (passage: Passage) => ownOf(passage).some((own) => own.length > 0)

/** What lies in a shape in any of the passages, and is to be left free. */
function groundOf(edit: Edit, shape: Shape): FreeGround {
  const { passages, marks } = edit.highlight
  // What lies alike need be looked at once.
  const unlike = new Map(
    passages.map((p) => [`${p.setupId} ${p.layoutId} ${liesByItself(p) ? JSON.stringify(ownOf(p)) : ''}`, p]),
  )
  const looked = [...unlike.values()].slice(0, MAX_UNLIKE)
  const ground = new FreeGround(
    shape,
    looked.flatMap((passage) => picturesOf(edit, shape, passage)),
  )
  for (const passage of looked) for (const rect of wordsOf(edit, shape, passage)) ground.add(rect, WORDS_MATTER)
  for (const mark of marks)
    if (isHung(mark) && !mark.findsPlace) ground.add(markRect(mark, edit.imageFiles, shape), MARKS_MATTER)
  return ground
}

/** Wherever a panel shows what matters of any region, its own or not. */
function picturesOf(edit: Edit, shape: Shape, passage: Passage): readonly Kept[] {
  if (layoutOf(edit, passage.layoutId).adapts) return answerIn(edit, passage, shape).kept
  return placePanels(edit, shape, passage).flatMap(({ picture, panel, source }) =>
    picture
      ? thingsIn(edit, source).flatMap(({ kind, rect }) => {
          const seen = placeOnCanvas(rect, picture, panel)
          return seen ? [{ rect: seen, matters: MATTERS[kind] }] : []
        })
      : [],
  )
}

/** The areas of the kinds of words that a highlight has. */
function wordsOf(edit: Edit, shape: Shape, passage: Passage): Rect[] {
  const { titles, captions, cues } = edit.highlight.words
  const { titleArea, captionArea } = wordAreasIn(edit, passage, shape)
  return [...(titles.length > 0 ? [titleArea] : []), ...(captions.shown && cues.length > 0 ? [captionArea] : [])]
}
