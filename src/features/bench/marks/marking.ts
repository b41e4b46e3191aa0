import type { Rect } from '@/core/geometry/rect'
import { markAt } from '@/core/layout/markRects'
import type { MarkId } from '@/core/model/ids'
import { isHung, MOST_MARKS, type PictureMark } from '@/core/model/pictureMark'
import type { Shape } from '@/core/model/shape'
import type { EditSession } from '../edits'

/** What can be done to marks on the picture. Changes with the same `gesture` are undone together. */

const once = () => crypto.randomUUID()

/** Puts a mark over the others. There is room for {@link MOST_MARKS}; says whether it was added. */
export function addMark(session: EditSession, mark: PictureMark, label: string): boolean {
  if (session.value.highlight.marks.length >= MOST_MARKS) return false
  session.change(label, once(), (draft) => void draft.highlight.marks.push(besideOthers(mark, draft.highlight.marks)))
  return true
}

/** So far a mark is put from one that would lie under it, shares of the shape. */
const ASIDE = { dx: 0.04, dy: 0.03 }

/** A mark where no other has its corner: what lies exactly under another cannot be seen or taken hold of. */
function besideOthers(mark: PictureMark, others: readonly PictureMark[]): PictureMark {
  if (!isHung(mark)) return mark
  const isThere = ({ dx, dy }: { dx: number; dy: number }) => others.some((o) => isHung(o) && o.anchor === mark.anchor && Math.abs(o.dx - dx) < ASIDE.dx / 2 && Math.abs(o.dy - dy) < ASIDE.dy / 2)
  const inwards = mark.anchor.includes('e') ? -1 : 1
  let place = { dx: mark.dx, dy: mark.dy }
  for (let tries = 0; isThere(place) && tries < MOST_MARKS; tries++) place = { dx: place.dx + inwards * ASIDE.dx, dy: place.dy + ASIDE.dy }
  return { ...mark, ...place }
}

/** Changes a mark; what it is stays. */
export function setMark<M extends PictureMark>(session: EditSession, { id, kind }: M, label: string, change: Partial<M>, gesture: string = once()): void {
  session.change(label, gesture, (draft) => {
    const mark = draft.highlight.marks.find((m) => m.id === id)
    if (mark?.kind === kind) Object.assign(mark, change)
  })
}

/** Moves or resizes a mark to a rectangle, px of a shape; in the others it follows. */
export function placeMark(session: EditSession, id: MarkId, shape: Shape, rect: Rect, gesture: string): void {
  session.change('Move mark', gesture, ({ highlight, imageFiles }) => {
    const mark = highlight.marks.find((m) => m.id === id)
    if (mark && isHung(mark)) Object.assign(mark, markAt(mark, imageFiles, rect, shape))
  })
}

export function removeMark(session: EditSession, id: MarkId): void {
  session.change('Remove mark', once(), (draft) => {
    draft.highlight.marks = draft.highlight.marks.filter((m) => m.id !== id)
  })
}
