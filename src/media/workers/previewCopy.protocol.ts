import type { Recording } from '@/core/model/recording'
import type { Micros } from '@/core/time/micros'

export type PreviewCopyOutcome = { kind: 'made'; file: Blob } | { kind: 'stopped' } | { kind: 'failed'; detail: string }

export interface PreviewCopyWorker {
  /**
   * Copies a stretch of a recording in the size for looking, as a file whose clock is 0 at `fromMicros`. Gives way to
   * everything that is more urgent. A later call stops an earlier one; settles once.
   */
  make(recording: Recording, file: Blob, fromMicros: Micros, toMicros: Micros): Promise<PreviewCopyOutcome>
  stop(): void
}
