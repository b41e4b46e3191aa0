import type { Point, Rect } from '@/core/geometry/rect'
import type { Micros } from '@/core/time/micros'
import type { SourceFile } from '../source/openSources'

/**
 * Where somebody is looked for, fractions of the frame: faces in `area`, what stands out from what is usual in `core`
 * alone, inside it.
 */
export interface SearchArea {
  id: string
  area: Rect
  core: Rect
}

/**
 * What was seen at one moment: the whole frame as a small picture, and in each area the faces found, fractions of the
 * frame.
 */
export interface AlongSample {
  index: number
  picture: Blob
  faces: Record<string, Rect[]>
}

/** What only the whole look tells, for each sample that was seen. */
export interface AlongWhole {
  /** Per area, where something stands out from what is usual in its core; fractions of the frame. */
  moving: Record<string, (Rect | null)[]>
  /** Per area, where the eye would go in its core; fractions of the frame. */
  salient: Record<string, (Point | null)[]>
  /** First frames of shots, recording time, rising: those within what was looked at closely, or where nobody stayed. */
  cuts: Micros[]
  /** Those of them with which nothing goes on of what was there before. */
  sceneChanges: Micros[]
}

export type AlongOutcome = ({ kind: 'done' } & AlongWhole) | { kind: 'stopped' } | { kind: 'failed'; detail: string }

export interface AlongWorker {
  /**
   * Looks at a recording at rising `times`, at those from `from` on first; `closely`: at all of them, where otherwise
   * moments between others are made up where everybody has stayed. A later call stops an earlier one; settles once.
   */
  look(
    file: SourceFile,
    times: Micros[],
    from: Micros,
    areas: SearchArea[],
    closely: boolean,
    onSample: (sample: AlongSample) => void,
  ): Promise<AlongOutcome>
  stop(): void
}
