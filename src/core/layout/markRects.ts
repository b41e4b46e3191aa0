import { largestWithin } from '../geometry/fit'
import type { Rect, Size } from '../geometry/rect'
import type { ImageFile } from '../model/imageFile'
import type { HungMark } from '../model/pictureMark'
import { insetAt } from './insets'
import { insetRect } from './solve'

/** Height of a line of letters in its box, in ems. */
const LINE_BOX = 1.6
/** What styles allow. */
const MIN_LETTERS = 0.02
const MAX_LETTERS = 0.3

const shorterSide = ({ width, height }: Size) => Math.min(width, height)

/** A mark's width over its height. */
function proportionOf(mark: HungMark, images: readonly ImageFile[]): number {
  switch (mark.kind) {
    case 'picture': {
      const image = images.find((i) => i.id === mark.imageFileId)
      return image ? Math.min(20, Math.max(0.05, image.width / image.height)) : 1
    }
    case 'level':
      return mark.proportion
    case 'handle':
    case 'countdown':
      return Math.min(20, Math.max(0.05, mark.width / (LINE_BOX * mark.style.size)))
  }
}

/** A mark in terms of insets, whose width is a share of the canvas's. */
function asInset(mark: HungMark, images: readonly ImageFile[], canvas: Size) {
  const { anchor, dx, dy, width } = mark
  return {
    anchor,
    dx,
    dy,
    width: Math.min(1, (width * shorterSide(canvas)) / canvas.width),
    proportion: proportionOf(mark, images),
  }
}

/** Where a mark lies on a canvas: even pixels, inside it. */
export function markRect(mark: HungMark, images: readonly ImageFile[], canvas: Size): Rect {
  return insetRect(asInset(mark, images, canvas), canvas)
}

/**
 * A mark that lies at `rect`, px of a canvas; on others it stays near the same of the nine points. Letters grow with
 * their box.
 */
export function markAt<M extends HungMark>(mark: M, images: readonly ImageFile[], rect: Rect, canvas: Size): M {
  const short = shorterSide(canvas)
  const { anchor, dx, dy, width, proportion } = insetAt(asInset(mark, images, canvas), rect, canvas)
  const placed = { ...mark, anchor, dx, dy, width: Math.min(1, Math.max(0.02, (width * canvas.width) / short)) }
  if ('style' in placed)
    return {
      ...placed,
      style: {
        ...placed.style,
        size: Math.min(MAX_LETTERS, Math.max(MIN_LETTERS, rect.height / (LINE_BOX * short))),
      },
    }
  return placed.kind === 'level' ? { ...placed, proportion: Math.min(20, Math.max(0.2, proportion)) } : placed
}

/**
 * Where the picture and the words of an end card lie: the picture above the words, each as large as it can be with
 * room about it.
 */
export function endCardPlaces(
  canvas: Size,
  image: Size | null,
  hasText: boolean,
): { picture: Rect | null; text: Rect } {
  const room = {
    x: canvas.width * 0.1,
    y: canvas.height * 0.12,
    width: canvas.width * 0.8,
    height: canvas.height * 0.76,
  }
  if (!image) return { picture: null, text: room }
  const above = hasText ? { ...room, height: room.height * 0.62 } : room
  const { width, height } = largestWithin(above, image.width / image.height)
  const picture = {
    x: Math.round(above.x + (above.width - width) / 2),
    y: Math.round(above.y + (above.height - height) / 2),
    width: Math.round(width),
    height: Math.round(height),
  }
  return { picture, text: { ...room, y: above.y + above.height, height: room.height - above.height } }
}
