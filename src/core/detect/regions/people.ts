import { areaOf, centreOf, intersection, type Rect } from '../../geometry/rect'

/** A face found in a frame, px of it, and how sure that is, 0..1. */
export type FoundFace = Rect & { score: number }

/** Somebody who is seen again and again at about the same place. */
export interface SeenPerson {
  /** Where the head mostly is, px of the frame. */
  head: Rect
  /** Share of the frames that were looked at in which it was found, 0..1. */
  seen: number
  /** How sure it mostly was that it is a face, 0..1. */
  score: number
}

/** Faces found in fewer of the frames are somebody who passes by, or no faces. */
const MIN_SEEN = 0.34
const MIN_FRAMES = 3

/** A face belongs to somebody whose head was within this many of its sizes, and at most so much larger or smaller. */
const NEAR = 1
const ALIKE = 1.9

/**
 * People, by the faces found in each frame that was looked at (px); those who are seen most often first. Somebody who
 * moves about stays one person as long as the head never jumps by more than its size.
 */
export function peopleIn(faces: readonly (readonly FoundFace[])[]): SeenPerson[] {
  const people: FoundFace[][] = []
  for (const found of faces) {
    const free = new Set(people)
    for (const face of found) {
      const nearest = [...free]
        .map((heads) => ({ heads, away: distance(heads.at(-1) as FoundFace, face) }))
        .filter(({ away }) => away <= NEAR)
        .sort((a, b) => a.away - b.away)[0]?.heads
      if (nearest) {
        nearest.push(face)
        free.delete(nearest)
      } else people.push([face])
    }
  }
  const least = Math.max(MIN_FRAMES, MIN_SEEN * faces.length)
  return people
    .filter((heads) => heads.length >= least)
    .map((heads) => ({ ...usualOf(heads), seen: heads.length / faces.length }))
    .sort((a, b) => b.seen - a.seen || areaOf(b.head) - areaOf(a.head))
}

/** Whether a rectangle shows all but a sliver of a head. */
export function shows(rect: Rect, { head }: SeenPerson): boolean {
  const both = intersection(rect, head)
  return both !== null && areaOf(both) >= 0.75 * areaOf(head)
}

/** How far two heads lie apart, in sizes of the larger; infinite for heads of unlike sizes. */
function distance(a: Rect, b: Rect): number {
  const [large, small] = a.height > b.height ? [a, b] : [b, a]
  if (large.height > ALIKE * small.height) return Infinity
  const [from, to] = [centreOf(a), centreOf(b)]
  return Math.hypot(from.x - to.x, from.y - to.y) / large.height
}

function usualOf(faces: readonly FoundFace[]): Pick<SeenPerson, 'head' | 'score'> {
  const usual = (side: keyof FoundFace) => faces.map((f) => f[side]).sort((a, b) => a - b)[faces.length >> 1] as number
  return {
    head: { x: usual('x'), y: usual('y'), width: usual('width'), height: usual('height') },
    score: usual('score'),
  }
}
