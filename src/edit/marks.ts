import type { Rect } from '@/core/geometry/rect'
import { markAt } from '@/core/layout/markRects'
import type { MarkId } from '@/core/model/ids'
import { isHung, MAX_MARKS, type PictureMark } from '@/core/model/pictureMark'
import type { Shape } from '@/core/model/shape'
import { command } from './command'

/** What is put over the picture besides words. */

/** Puts a mark over the others. There is room for {@link MAX_MARKS}. */
export const addMark = command<{ mark: PictureMark; label: string }>({
  id: 'add-mark',
  label: ({ label }) => label,
  refuse: ({ highlight }) => (highlight.marks.length >= MAX_MARKS ? `there are ${MAX_MARKS} marks at most` : null),
  apply: ({ highlight }, { mark }) => void highlight.marks.push(besideOthers(mark, highlight.marks)),
})

/** So far a mark is put from one that would lie under it, shares of the shape. */
const ASIDE = { dx: 0.04, dy: 0.03 }

/** A mark where no other has its corner: what lies exactly under another cannot be seen or taken hold of. */
function besideOthers(mark: PictureMark, others: readonly PictureMark[]): PictureMark {
  if (!isHung(mark)) return mark
  const isClose = (one: { dx: number; dy: number }, other: { dx: number; dy: number }) =>
    Math.abs(other.dx - one.dx) < ASIDE.dx / 2 && Math.abs(other.dy - one.dy) < ASIDE.dy / 2
  const isTaken = (place: { dx: number; dy: number }) =>
    others.some((o) => isHung(o) && o.anchor === mark.anchor && isClose(place, o))
  const inwards = mark.anchor.includes('e') ? -1 : 1
  let place = { dx: mark.dx, dy: mark.dy }
  for (let tries = 0; isTaken(place) && tries < MAX_MARKS; tries++)
    place = { dx: place.dx + inwards * ASIDE.dx, dy: place.dy + ASIDE.dy }
  return { ...mark, ...place }
}

/** Changes a mark; what it is stays. */
export const setMark = command<{ mark: Pick<PictureMark, 'id' | 'kind'>; label: string; change: Partial<PictureMark> }>(
  {
    id: 'set-mark',
    label: ({ label }) => label,
    apply: ({ highlight }, { mark: { id, kind }, change }) => {
      const mark = highlight.marks.find((m) => m.id === id)
      if (mark?.kind === kind) Object.assign(mark, change)
    },
  },
)

/** Moves or resizes a mark to a rectangle, px of a shape; in the others it follows. */
export const placeMark = command<{ id: MarkId; shape: Shape; rect: Rect }>({
  id: 'place-mark',
  label: 'Move overlay',
  apply: ({ highlight, imageFiles }, { id, shape, rect }) => {
    const mark = highlight.marks.find((m) => m.id === id)
    if (mark && isHung(mark)) Object.assign(mark, markAt(mark, imageFiles, rect, shape), { findsPlace: false })
  },
})

export const removeMark = command<{ id: MarkId }>({
  id: 'remove-mark',
  label: 'Remove overlay',
  apply: (draft, { id }) => {
    draft.highlight.marks = draft.highlight.marks.filter((m) => m.id !== id)
  },
})
