import { areaOf, intersection, unionOf, type Rect } from '../../geometry/rect'
import type { Micros } from '../../time/micros'

/**
 * Where the subject of a region was at one moment, and the region's bounds then; fractions of the frame. No subject:
 * it was not to be found.
 */
export interface SubjectSample {
  micros: Micros
  subject: Rect | null
  bounds: Rect
}

/** How well a region holds its subject. */
export interface Presence {
  /** Share of the samples in which the subject is inside, 0..1. */
  share: number
  /** Stretches in which it is not, from the first sample outside to the first inside again. */
  outside: { fromMicros: Micros; toMicros: Micros }[]
  /** The least that would hold the subject throughout, fractions of the frame; null when it was never found. */
  smallest: Rect | null
}

/** Detectors draw their boxes wide: this much of one, about its centre, is what must not be lost. */
const CORE_SHARE = 0.7
/** So much of that core has to lie inside. */
const MIN_INSIDE = 0.97

/**
 * Judges samples in order, `everyMicros` apart. A single sample in which nothing is found between two that are inside
 * is a blink of the detector, and so is a single one inside between two that are not.
 */
export function presenceOf(samples: readonly SubjectSample[], everyMicros: Micros): Presence {
  const held = samples.map(({ subject, bounds }) => subject !== null && isInside(subject, bounds))
  const found = held.map(
    (is, i) => is || (samples[i]?.subject === null && held[i - 1] === true && held[i + 1] === true),
  )
  const inside = found.map((is, i) => is && (found[i - 1] !== false || found[i + 1] !== false))
  const outside: Presence['outside'] = []
  inside.forEach((is, i) => {
    const sample = samples[i]
    if (is || !sample) return
    const last = outside.at(-1)
    if (last && inside[i - 1] === false) last.toMicros = sample.micros + everyMicros
    else outside.push({ fromMicros: sample.micros, toMicros: sample.micros + everyMicros })
  })
  const subjects = samples.flatMap(({ subject }) => subject ?? [])
  return {
    share: samples.length === 0 ? 1 : inside.filter(Boolean).length / samples.length,
    outside,
    smallest: subjects.length === 0 ? null : subjects.reduce(unionOf),
  }
}

/** Whether bounds hold what matters of a subject's box. */
export function isInside(subject: Rect, bounds: Rect): boolean {
  const core = {
    width: subject.width * CORE_SHARE,
    height: subject.height * CORE_SHARE,
    x: subject.x + (subject.width * (1 - CORE_SHARE)) / 2,
    y: subject.y + (subject.height * (1 - CORE_SHARE)) / 2,
  }
  const shared = intersection(core, bounds)
  return shared !== null && areaOf(shared) >= areaOf(core) * MIN_INSIDE
}
