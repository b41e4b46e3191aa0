import { centreOf, type Rect } from '../../geometry/rect'

/** What was seen of an area at one moment: faces, fractions of the frame, and what it looked like, small 8-bit luma. */
export interface AreaSeen {
  faces: readonly Rect[]
  picture: Uint8Array
}

/** Somebody who is no farther away, in heights of the head, has stayed. */
const STAYED = 0.3
/** Somebody else may come to the same place in another scene: there the picture differs by more than this. */
const SAME_PLACE = 22
/** Where nobody was, nobody came as long as it looks the same: so many levels of 8-bit luma on average. */
const AS_EMPTY = 6

/** Whether the same may be taken to go on between two moments close together: everybody has stayed, in one place. */
export function goesOn(a: AreaSeen, b: AreaSeen): boolean {
  if (a.faces.length !== b.faces.length) return false
  if (a.faces.length === 0) return meanDifference(a.picture, b.picture) < AS_EMPTY
  return (
    meanDifference(a.picture, b.picture) < SAME_PLACE &&
    pairs(a.faces, b.faces).every(([from, to]) => distance(from, to) <= STAYED * from.height)
  )
}

/** Faces at a moment between two at which {@link goesOn} holds; `share` 0..1 of the way. */
export function facesBetween(a: readonly Rect[], b: readonly Rect[], share: number): Rect[] {
  const at = (from: number, to: number) => from + share * (to - from)
  return pairs(a, b).map(([from, to]) => ({
    x: at(from.x, to.x),
    y: at(from.y, to.y),
    width: at(from.width, to.width),
    height: at(from.height, to.height),
  }))
}

/** Mean difference of two pictures of one size, levels. */
function meanDifference(a: Uint8Array, b: Uint8Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += Math.abs((a[i] as number) - (b[i] as number))
  return sum / a.length
}

/** Each face with the nearest that no other has. */
function pairs(a: readonly Rect[], b: readonly Rect[]): [Rect, Rect][] {
  const free = [...b]
  return a.flatMap((from): [Rect, Rect][] => {
    const [nearest] = free.sort((x, y) => distance(from, x) - distance(from, y)).splice(0, 1)
    return nearest ? [[from, nearest]] : []
  })
}

function distance(a: Rect, b: Rect): number {
  const [from, to] = [centreOf(a), centreOf(b)]
  return Math.hypot(from.x - to.x, from.y - to.y)
}
