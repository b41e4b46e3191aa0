import { assertNever } from '../assert'
import { toEven } from '../geometry/evenGrid'
import type { Point, Size } from '../geometry/rect'
import type { Direction } from '../model/join'
import type { PlacedJoin } from '../time/timeMap'
import type { Step } from './composition'

const STILL: Point = { x: 0, y: 0 }

/** `share` of a canvas's way in a direction, on even pixels. */
function toward(direction: Direction, share: number, { width, height }: Size): Point {
  switch (direction) {
    case 'up':
      return { x: 0, y: -toEven(height * share) }
    case 'down':
      return { x: 0, y: toEven(height * share) }
    case 'left':
      return { x: -toEven(width * share), y: 0 }
    case 'right':
      return { x: toEven(width * share), y: 0 }
  }
}

/** Where the next picture is when this one has gone `share` of its way: exactly behind it, so that the two meet. */
function following(direction: Direction, share: number, size: Size): Point {
  const gone = toward(direction, share, size)
  const whole = toward(direction, 1, size)
  return { x: gone.x - whole.x, y: gone.y - whole.y }
}

/** The steps of a frame on the way from one passage's steps to the next's; `progress` 0..1 is already eased. */
export function joinSteps(join: PlacedJoin['join'], progress: number, from: Step[], to: Step[], size: Size): Step[] {
  switch (join.kind) {
    case 'push':
      return [
        { kind: 'layer', offset: toward(join.direction, progress, size), opacity: 1, steps: from },
        { kind: 'layer', offset: following(join.direction, progress, size), opacity: 1, steps: to },
      ]
    case 'slide':
      return [...from, { kind: 'layer', offset: following(join.direction, progress, size), opacity: 1, steps: to }]
    case 'dissolve':
      return [...from, { kind: 'layer', offset: STILL, opacity: progress, steps: to }]
    case 'dip':
      return [...(progress < 0.5 ? from : to), { kind: 'tint', colour: join.colour, opacity: 1 - Math.abs(2 * progress - 1) }]
    default:
      return assertNever(join)
  }
}
