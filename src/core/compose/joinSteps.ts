import { assertNever } from '../assert'
import { toEven } from '../geometry/evenGrid'
import type { Point, Rect, Size } from '../geometry/rect'
import type { Direction } from '../model/join'
import type { PlacedJoin } from '../time/timeMap'
import type { PictureStep, Step } from './composition'

/** What a passage's layout draws: what lies behind, and each panel with its place. */
export interface Drawn {
  behind: Step[]
  panels: { rect: Rect; step: PictureStep }[]
}

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

/**
 * The steps of a frame on the way from what one passage draws to what the next does; `progress` 0..1 is already
 * eased.
 */
export function joinSteps(
  join: PlacedJoin['join'],
  progress: number,
  fromDrawn: Drawn,
  toDrawn: Drawn,
  size: Size,
): Step[] {
  if (join.kind === 'push' && join.within === 'panel') return pushPanels(join.direction, progress, fromDrawn, toDrawn)
  const [from, to] = [allOf(fromDrawn), allOf(toDrawn)]
  const window = { x: 0, y: 0, ...size }
  switch (join.kind) {
    case 'push':
      return [
        { kind: 'layer', offset: toward(join.direction, progress, size), opacity: 1, window, steps: from },
        { kind: 'layer', offset: following(join.direction, progress, size), opacity: 1, window, steps: to },
      ]
    case 'slide':
      return [
        ...from,
        { kind: 'layer', offset: following(join.direction, progress, size), opacity: 1, window, steps: to },
      ]
    case 'dissolve':
      return [...from, { kind: 'layer', offset: STILL, opacity: progress, window, steps: to }]
    case 'dip':
      return [
        ...(progress < 0.5 ? from : to),
        { kind: 'tint', colour: join.colour, opacity: 1 - Math.abs(2 * progress - 1) },
      ]
    default:
      return assertNever(join)
  }
}

/** Everything that is drawn, in order. */
export const allOf = ({ behind, panels }: Drawn): Step[] => [...behind, ...panels.map((p) => p.step)]

/**
 * Panels in the next passage's places: one that goes on with what it showed stays, any other is pushed out by what
 * comes.
 */
function pushPanels(direction: Direction, progress: number, from: Drawn, to: Drawn): Step[] {
  return [
    ...to.behind,
    ...to.panels.flatMap(({ rect, step }): Step[] => {
      const before = from.panels.find((p) => sameRect(p.rect, rect))
      if (before && goesOn(before.step, step)) return [step]
      const under = from.panels.filter((p) => overlaps(p.rect, rect)).map((p) => p.step)
      return [
        { kind: 'layer', offset: toward(direction, progress, rect), opacity: 1, window: rect, steps: under },
        { kind: 'layer', offset: following(direction, progress, rect), opacity: 1, window: rect, steps: [step] },
      ]
    }),
  ]
}

const sameRect = (a: Rect, b: Rect) => a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height
const overlaps = (a: Rect, b: Rect) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height

/**
 * Whether two pictures show the same moment of the same walk through a recording, but for what rounding makes of it.
 */
const goesOn = (a: PictureStep, b: PictureStep) =>
  a.feed.lane === b.feed.lane &&
  a.feed.recordingId === b.feed.recordingId &&
  Math.abs(a.feed.micros - b.feed.micros) < 1000
