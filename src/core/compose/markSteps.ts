import { compassShare } from '../geometry/compass'
import { endCardPlaces } from '../layout/markRects'
import type { Rect, Size } from '../geometry/rect'
import type { Edit } from '../model/edit'
import type { Anchor } from '../model/inset'
import { isHung, type HungMark, type MarkOf } from '../model/pictureMark'
import type { Shape } from '../model/shape'
import type { TextStyle } from '../model/textStyle'
import { MICROS_PER_SECOND, type Micros } from '../time/micros'
import type { TimeMap } from '../time/timeMap'
import type { Step } from './composition'
import { markPlace, type MarkPlace } from './markPlaces'
import { isOnAt } from './whenOn'

/** What marks draw over a frame at output time `t`, under the words. */
export function markSteps(edit: Edit, map: TimeMap, shape: Shape, t: Micros): Step[] {
  return edit.highlight.marks.flatMap((mark): Step[] => {
    if (mark.kind === 'endCard' || !isOnAt(mark, t, map.lengthMicros)) return []
    return isHung(mark)
      ? hungSteps(mark, markPlace(edit, shape, mark), map, t)
      : progressSteps(mark, shape, map.lengthMicros > 0 ? t / map.lengthMicros : 0)
  })
}

/** End cards, over everything. */
export function endCardSteps(
  { highlight, imageFiles }: Pick<Edit, 'highlight' | 'imageFiles'>,
  map: TimeMap,
  shape: Shape,
  t: Micros,
): Step[] {
  return highlight.marks.flatMap((mark): Step[] => {
    if (mark.kind !== 'endCard' || t < map.lengthMicros - mark.lengthMicros) return []
    const { ground, imageFileId, text, style } = mark
    const image = imageFiles.find((f) => f.id === imageFileId) ?? null
    const places = endCardPlaces(shape, image, text.trim() !== '')
    return [
      { kind: 'block', rect: { x: 0, y: 0, width: shape.width, height: shape.height }, colour: ground, opacity: 1 },
      ...(places.picture && image
        ? [
            {
              kind: 'image',
              imageFileId: image.id,
              micros: t - Math.max(0, map.lengthMicros - mark.lengthMicros),
              dest: places.picture,
              opacity: 1,
            } as const,
          ]
        : []),
      ...textStep(text, style, places.text),
    ]
  })
}

function hungSteps(mark: HungMark, { rect, anchor }: MarkPlace, map: TimeMap, t: Micros): Step[] {
  switch (mark.kind) {
    case 'picture':
      return [
        {
          kind: 'image',
          imageFileId: mark.imageFileId,
          micros: t - (mark.fromMicros ?? 0),
          dest: rect,
          opacity: mark.opacity,
        },
      ]
    case 'level':
      return [{ kind: 'level', rect, form: mark.form, colour: mark.colour, opacity: mark.opacity, micros: t }]
    case 'handle':
      return textStep(mark.text, hungFrom(mark.style, anchor), rect)
    case 'countdown':
      return textStep(String(secondsLeft(mark, map, t)), hungFrom(mark.style, anchor), rect)
  }
}

/** Counted as people do: the last second is “1”. */
function secondsLeft({ toMicros }: MarkOf<'countdown'>, { lengthMicros }: TimeMap, t: Micros): number {
  return Math.ceil((Math.min(toMicros ?? lengthMicros, lengthMicros) - t) / MICROS_PER_SECOND)
}

const ALIGNED = { 0: 'start', 0.5: 'middle', 1: 'end' } as const

/** Letters stand at the side on which their mark hangs. */
function hungFrom(style: TextStyle, anchor: Anchor): TextStyle {
  return { ...style, place: 'middle', align: ALIGNED[compassShare(anchor).x] }
}

function textStep(text: string, style: TextStyle, area: Rect): Step[] {
  return text.trim() === '' ? [] : [{ kind: 'text', text, style, area, word: null, opacity: 1, scale: 1 }]
}

function progressSteps(
  { edge, thickness, colour, behind, behindOpacity }: MarkOf<'progress'>,
  { width, height }: Size,
  share: number,
): Step[] {
  const thick = Math.max(2, Math.round(thickness * Math.min(width, height)))
  const upright = edge === 'left' || edge === 'right'
  const bar = upright
    ? { x: edge === 'left' ? 0 : width - thick, y: 0, width: thick, height }
    : { x: 0, y: edge === 'top' ? 0 : height - thick, width, height: thick }
  const done = upright ? { ...bar, y: height * (1 - share), height: height * share } : { ...bar, width: width * share }
  return [
    { kind: 'block', rect: bar, colour: behind, opacity: behindOpacity },
    { kind: 'block', rect: done, colour, opacity: 1 },
  ]
}
