import type { Mark } from '../interchange/mark'
import type { MomentId } from '../model/ids'
import type { Moment } from '../model/spotting'
import type { ProposedMoment } from './moments'

/**
 * A proposal as a moment that nothing has been decided about yet. Its id follows from its peak, so that it stays
 * picked up while more is found.
 */
export function asMoment(proposal: ProposedMoment): Moment {
  return { ...proposal, id: `peak ${proposal.peakMicros}` as MomentId, source: 'proposed', label: '', state: 'open' }
}

/** What is decided, and the proposals that nothing decided about overlaps: what the list shows, in order of time. */
export function withProposals(decided: readonly Moment[], proposals: readonly ProposedMoment[]): Moment[] {
  const free = proposals.filter(
    (p) =>
      !decided.some(
        (m) =>
          (p.peakMicros >= m.inMicros && p.peakMicros < m.outMicros) ||
          (m.peakMicros >= p.inMicros && m.peakMicros < p.outMicros),
      ),
  )
  return [...decided, ...free.map(asMoment)].sort((a, b) => a.inMicros - b.inMicros)
}

/** Moments as marks for other programs: all that were not dropped. */
export function asMarks(moments: readonly Moment[]): Mark[] {
  return moments
    .filter((m) => m.state !== 'dropped')
    .map(({ inMicros, outMicros, label }) => ({ inMicros, outMicros, label }))
    .sort((a, b) => a.inMicros - b.inMicros)
}
