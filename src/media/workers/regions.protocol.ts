import type { Fingerprint } from '@/core/detect/regions/fingerprint'
import type { StillLinesData } from '@/core/detect/regions/lines'
import type { RegionProposal } from '@/core/detect/regions/proposal'
import type { Rect, Size } from '@/core/geometry/rect'
import type { Micros } from '@/core/time/micros'
import type { SourceFile } from '../source/openSources'

/**
 * What was seen of a recording at the times that were looked at. Lengths are px of `size`, the recording's display
 * size.
 */
export interface Look {
  size: Size
  proposals: RegionProposal[]
  fingerprint: Fingerprint
  /** Lines that hold still, for edges to snap to. */
  upright: StillLinesData
  level: StillLinesData
}

export type LookOutcome = { kind: 'seen'; look: Look } | { kind: 'stopped' } | { kind: 'failed'; detail: string }

export interface RegionsWorker {
  /**
   * Looks at a recording at rising `times`; `withFaces`: also for who is in it. `onProgress` is told the share that is
   * done, 0..1. A later call stops an earlier one; settles once.
   */
  look(
    file: SourceFile,
    size: Size,
    times: Micros[],
    withFaces: boolean,
    onProgress: (share: number) => void,
  ): Promise<LookOutcome>
  /**
   * For each stretch how much each region stirs where mouths are, on average; `regions` in px of `size`. Rejects when
   * the recording cannot be read.
   */
  stir(
    file: SourceFile,
    size: Size,
    regions: Rect[],
    stretches: { fromMicros: Micros; toMicros: Micros }[],
  ): Promise<number[][]>
  /** A rectangle without border and black, by what was seen last of this recording; null when that was nothing. */
  tighten(recordingId: string, rect: Rect): Promise<Rect | null>
  stop(): void
}
