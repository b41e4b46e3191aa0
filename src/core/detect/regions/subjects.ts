import { areaOf, centreOf, intersection, type Rect } from '../../geometry/rect'
import type { Micros } from '../../time/micros'
import type { SubjectSample } from './presence'

/** What was found at one moment in and around a region of these bounds, fractions of the frame. */
export interface FoundSample {
  micros: Micros
  bounds: Rect
  faces: readonly Rect[]
  /** What stands out from what is usual within the region; null where nothing does. */
  moving: Rect | null
}

/** Whether a subject was told by faces or, where hardly any was found, by what moves. */
export interface Subjects {
  by: 'face' | 'movement'
  samples: SubjectSample[]
}

/** With faces in fewer samples than this share, faces do not tell who is there. */
const ENOUGH_FACES = 0.2

/**
 * Who a region is about, from sample to sample: of several faces the one that lies most inside; of several as much
 * inside, the one nearest to the last.
 */
export function subjectsOf(samples: readonly FoundSample[]): Subjects {
  const withFaces = samples.filter((s) => s.faces.length > 0).length
  if (withFaces < samples.length * ENOUGH_FACES)
    return {
      by: 'movement',
      samples: samples.map(({ micros, bounds, moving }) => ({ micros, bounds, subject: moving })),
    }
  let last = samples[0] ? centreOf(samples[0].bounds) : { x: 0.5, y: 0.5 }
  return {
    by: 'face',
    samples: samples.map(({ micros, bounds, faces }) => {
      const rank = (face: Rect) => {
        const inside = intersection(face, bounds)
        const { x, y } = centreOf(face)
        return (inside ? areaOf(inside) / areaOf(face) : 0) - Math.hypot(x - last.x, y - last.y)
      }
      const subject = faces.reduce<Rect | null>(
        (best, face) => (best === null || rank(face) > rank(best) ? face : best),
        null,
      )
      if (subject) last = centreOf(subject)
      return { micros, bounds, subject }
    }),
  }
}
