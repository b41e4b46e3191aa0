import type { Point } from './rect'

/**
 * Where a point of the compass (an anchor's or a grip's: 'nw', 'n', 'c' …) lies on a rectangle, in shares of its
 * width and height.
 */
export function compassShare(point: string): { x: Share; y: Share } & Point {
  return { x: shareAlong(point, 'w', 'e'), y: shareAlong(point, 'n', 's') }
}

type Share = 0 | 0.5 | 1

function shareAlong(point: string, start: string, end: string): Share {
  if (point.includes(start)) return 0
  return point.includes(end) ? 1 : 0.5
}
