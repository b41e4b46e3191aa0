import type { PicturesPart, SoundPart } from '@/core/detect/analysis'
import type { Micros } from '@/core/time/micros'

/** Which parts of a recording are still to be looked through; see core/detect/analysis. */
export interface AnalyseJob {
  file: Blob
  originMicros: number
  durationMicros: Micros
  sound: number[]
  pictures: number[]
}

export type FoundPart = { index: number } & (
  { kind: 'sound'; part: SoundPart } | { kind: 'pictures'; part: PicturesPart }
)

export type AnalyseOutcome = { kind: 'done' } | { kind: 'stopped' } | { kind: 'failed'; detail: string }

export interface AnalyseWorker {
  /** Goes through the job's parts in order. One job at a time; settles once. */
  analyse(job: AnalyseJob, onPart: (part: FoundPart) => void): Promise<AnalyseOutcome>
  /** Ends the running job soon; what was found stays. */
  stop(): void
}
