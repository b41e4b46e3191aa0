import { momentAround, type ProposedMoment } from '@/core/detect/moments'
import { cutsOf, type Analysis } from '@/core/detect/analysis'
import { speechOfAnalysis } from '@/core/detect/speech'
import { oneFrame, onFrame } from '@/core/cut/passages'
import type { Mark } from '@/core/interchange/mark'
import type { MomentId } from '@/core/model/ids'
import type { Recording } from '@/core/model/recording'
import { MOST_MOMENTS, type Moment, type Spotting } from '@/core/model/spotting'
import { clampMicros, type Micros } from '@/core/time/micros'
import { newId } from '@/store/clock'
import type { Session } from '@/store/session'

/** Everything that can be decided about a recording's moments. Changes with the same `gesture` are undone together. */

export type SpottingSession = Session<Spotting>

const once = () => crypto.randomUUID()

/** A proposal as a moment that nothing has been decided about yet. Its id follows from its peak, so that it stays picked up while more is found. */
export function asMoment(proposal: ProposedMoment): Moment {
  return { ...proposal, id: `peak ${proposal.peakMicros}` as MomentId, source: 'proposed', label: '', state: 'open' }
}

/** What is decided, and the proposals that nothing decided about overlaps: what the list shows, in order of time. */
export function withProposals(decided: readonly Moment[], proposals: readonly ProposedMoment[]): Moment[] {
  const free = proposals.filter((p) => !decided.some((m) => (p.peakMicros >= m.inMicros && p.peakMicros < m.outMicros) || (m.peakMicros >= p.inMicros && m.peakMicros < p.outMicros)))
  return [...decided, ...free.map(asMoment)].sort((a, b) => a.inMicros - b.inMicros)
}

/** Changes a moment; a proposal becomes one that is decided about by it. */
function decide(session: SpottingSession, label: string, gesture: string, moment: Moment, change: Partial<Moment>): void {
  session.change(label, gesture, (draft) => {
    const known = draft.moments.find((m) => m.id === moment.id)
    if (known) Object.assign(known, change)
    else draft.moments.push({ ...moment, ...change })
  })
}

export function keep(session: SpottingSession, moment: Moment): void {
  decide(session, 'Keep moment', once(), moment, { state: 'kept' })
}

export function drop(session: SpottingSession, moment: Moment): void {
  decide(session, 'Drop moment', once(), moment, { state: 'dropped' })
}

export function rename(session: SpottingSession, moment: Moment, label: string): void {
  decide(session, 'Name moment', once(), moment, { label })
}

/** Moves a moment's in or out point to the frame nearest to `t`; the two stay a frame apart. */
export function adjust(session: SpottingSession, recording: Recording, moment: Moment, which: 'in' | 'out', t: Micros, gesture: string): void {
  const now = session.value.moments.find((m) => m.id === moment.id) ?? moment
  const at = onFrame(recording, t)
  const frame = oneFrame(recording)
  const edges = which === 'in' ? { inMicros: clampMicros(at, 0, now.outMicros - frame) } : { outMicros: clampMicros(at, now.inMicros + frame, recording.durationMicros) }
  const { inMicros, outMicros } = { ...now, ...edges }
  decide(session, which === 'in' ? 'Set in point' : 'Set out point', gesture, moment, { ...edges, peakMicros: clampMicros(now.peakMicros, inMicros, outMicros) })
}

/** Marks the moment that happened `reactionMicros` before recording time `t`; it is kept. */
export function markAt(session: SpottingSession, recording: Recording, analysis: Analysis, t: Micros): Moment {
  const { reactionMicros, mostMicros } = session.value
  const peakMicros = clampMicros(t - reactionMicros, 0, recording.durationMicros - 1)
  const moment: Moment = { ...momentAround(peakMicros, recording.durationMicros, speechOfAnalysis(analysis), cutsOf(analysis), mostMicros), id: newId<MomentId>(), source: 'marked', peakMicros, label: '', score: null, reasons: [], state: 'kept' }
  session.change('Mark moment', once(), (draft) => void draft.moments.push(moment))
  return moment
}

/** Takes marks made elsewhere as moments that are open to be kept; those that are there already are passed over, and those that there is no room for. Gives how many were taken, and how many there was no room for. */
export function takeMarks(session: SpottingSession, recording: Recording, analysis: Analysis, marks: readonly Mark[]): { taken: number; noRoom: number } {
  const speech = speechOfAnalysis(analysis)
  const cuts = cutsOf(analysis)
  const known = new Set(session.value.moments.map((m) => `${m.peakMicros} ${m.label}`))
  const moments = marks.flatMap((mark): Moment[] => {
    const peakMicros = Math.min(mark.inMicros, recording.durationMicros - 1)
    if (known.has(`${peakMicros} ${mark.label}`)) return []
    const edges = mark.outMicros === null ? momentAround(peakMicros, recording.durationMicros, speech, cuts, session.value.mostMicros) : { inMicros: mark.inMicros, outMicros: mark.outMicros }
    return [{ ...edges, id: newId<MomentId>(), source: 'imported', peakMicros, label: mark.label, score: null, reasons: [], state: 'open' }]
  })
  const taken = moments.slice(0, Math.max(0, MOST_MOMENTS - session.value.moments.length))
  if (taken.length > 0) session.change('Read marks', once(), (draft) => void draft.moments.push(...taken))
  return { taken: taken.length, noRoom: moments.length - taken.length }
}

/** Moments as marks for other programs: all that were not dropped. */
export function asMarks(moments: readonly Moment[]): Mark[] {
  return moments.filter((m) => m.state !== 'dropped').map(({ inMicros, outMicros, label }) => ({ inMicros, outMicros, label })).sort((a, b) => a.inMicros - b.inMicros)
}

export function setCut(session: SpottingSession, ids: readonly MomentId[]): void {
  session.change('Cut highlights', once(), (draft) => {
    for (const m of draft.moments) if (ids.includes(m.id)) m.state = 'cut'
  })
}

export function setFinding(session: SpottingSession, part: Partial<Pick<Spotting, 'weights' | 'reactionMicros' | 'mostMicros' | 'proposals'>>, gesture: string): void {
  session.change('Change finding', gesture, (draft) => void Object.assign(draft, part))
}
