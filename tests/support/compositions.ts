import type { Composition, PictureStep } from '@/core/compose/composition'
import type { Point, Rect } from '@/core/geometry/rect'

/**
 * Every picture of a composition with where it comes to lie on the canvas: layers moved, as far as they are seen
 * through their windows.
 */
export function picturesIn(
  { steps }: Pick<Composition, 'steps'>,
  offset: Point = { x: 0, y: 0 },
): { step: PictureStep; dest: Rect }[] {
  return steps.flatMap((step) => {
    if (step.kind === 'picture')
      return [{ step, dest: { ...step.dest, x: step.dest.x + offset.x, y: step.dest.y + offset.y } }]
    return step.kind === 'layer' ? picturesIn(step, { x: offset.x + step.offset.x, y: offset.y + step.offset.y }) : []
  })
}
