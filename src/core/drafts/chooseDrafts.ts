import type { ProposedMoment } from '../detect/moments'
import type { RecordingId } from '../model/ids'
import { MICROS_PER_SECOND, type Micros } from '../time/micros'

/** A proposed moment and the recording that it is in. */
export interface Candidate {
  recordingId: RecordingId
  moment: ProposedMoment
}

/** Two drafts of one recording have at least so much between them: nearer, they tell the same story. */
const APART_MICROS: Micros = 10 * MICROS_PER_SECOND

/** What has been cut from a recording before. */
export interface Taken {
  recordingId: RecordingId
  inMicros: Micros
  outMicros: Micros
}

/**
 * The liveliest candidates, best first: `count` at most, none beside another of the same recording, none whose peak
 * is `taken` already, and no longer all together than `mostMicros`.
 */
export function chooseDrafts(
  candidates: readonly Candidate[],
  taken: readonly Taken[],
  { count, mostMicros }: { count: number; mostMicros: Micros },
): Candidate[] {
  const chosen: Candidate[] = []
  let left = mostMicros
  for (const candidate of candidates.toSorted((a, b) => b.moment.score - a.moment.score)) {
    if (chosen.length >= count) break
    const { inMicros, outMicros, peakMicros } = candidate.moment
    const isTaken = (t: Taken) =>
      t.recordingId === candidate.recordingId && t.inMicros <= peakMicros && t.outMicros > peakMicros
    const isBeside = ({ recordingId, moment }: Candidate) =>
      recordingId === candidate.recordingId &&
      moment.inMicros < outMicros + APART_MICROS &&
      moment.outMicros > inMicros - APART_MICROS
    if (outMicros - inMicros > left || chosen.some(isBeside) || taken.some(isTaken)) continue
    left -= outMicros - inMicros
    chosen.push(candidate)
  }
  return chosen
}
