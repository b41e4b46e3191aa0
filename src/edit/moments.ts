import { cutsOf, type Analysis } from '@/core/detect/analysis'
import { momentAround } from '@/core/detect/moments'
import { speechOfAnalysis } from '@/core/detect/speech'
import { oneFrame, onFrame } from '@/core/cut/passages'
import type { Mark } from '@/core/interchange/mark'
import { newId, type MomentId } from '@/core/model/ids'
import type { Recording } from '@/core/model/recording'
import { MAX_MOMENTS, type Moment, type Spotting } from '@/core/model/spotting'
import { clampMicros, type Micros } from '@/core/time/micros'
import { command, type Host } from './command'

/** Everything that can be decided about a recording's moments. */

const decide = (id: string, label: string, state: Moment['state']) =>
  command<{ moment: Moment }, Spotting>({
    id,
    label,
    apply: (draft, { moment }) => change(draft.moments, moment, { state }),
  })

/** Changes a moment; a proposal becomes one that is decided about by it. */
function change(moments: Moment[], moment: Moment, part: Partial<Moment>): void {
  const there = moments.find((m) => m.id === moment.id)
  if (there) Object.assign(there, part)
  else moments.push({ ...moment, ...part })
}

export const keep = decide('keep-moment', 'Keep moment', 'kept')
export const drop = decide('drop-moment', 'Drop moment', 'dropped')

export const rename = command<{ moment: Moment; label: string }, Spotting>({
  id: 'name-moment',
  label: 'Name moment',
  apply: (draft, { moment, label }) => change(draft.moments, moment, { label }),
})

/** Moves a moment's in or out point to the frame nearest to `t`; the two stay a frame apart. */
export const adjust = command<{ recording: Recording; moment: Moment; which: 'in' | 'out'; t: Micros }, Spotting>({
  id: 'adjust-moment',
  label: ({ which }) => (which === 'in' ? 'Set in point' : 'Set out point'),
  apply: (draft, { recording, moment, which, t }) => {
    const now = draft.moments.find((m) => m.id === moment.id) ?? moment
    const at = onFrame(recording, t)
    const frame = oneFrame(recording)
    const edges =
      which === 'in'
        ? { inMicros: clampMicros(at, 0, now.outMicros - frame) }
        : { outMicros: clampMicros(at, now.inMicros + frame, recording.durationMicros) }
    const { inMicros, outMicros } = { ...now, ...edges }
    change(draft.moments, moment, { ...edges, peakMicros: clampMicros(now.peakMicros, inMicros, outMicros) })
  },
})

const addMoments = command<{ moments: readonly Moment[]; label: string }, Spotting>({
  id: 'add-moments',
  label: ({ label }) => label,
  apply: (draft, { moments }) => void draft.moments.push(...moments),
})

/** Marks the moment that happened `reactionMicros` before recording time `t`; it is kept. */
export function markAt(host: Host<Spotting>, recording: Recording, analysis: Analysis, t: Micros): Moment {
  const { reactionMicros, mostMicros } = host.value
  const peakMicros = clampMicros(t - reactionMicros, 0, recording.durationMicros - 1)
  const edges = momentAround(
    peakMicros,
    recording.durationMicros,
    speechOfAnalysis(analysis),
    cutsOf(analysis),
    mostMicros,
  )
  const moment: Moment = {
    ...edges,
    id: newId<MomentId>(),
    source: 'marked',
    peakMicros,
    label: '',
    score: null,
    reasons: [],
    state: 'kept',
  }
  addMoments(host, { moments: [moment], label: 'Mark moment' })
  return moment
}

/**
 * Takes marks made elsewhere as moments that are open to be kept; those that are there already are passed over, and
 * those that there is no room for. Gives how many were taken, and how many there was no room for.
 */
export function takeMarks(
  host: Host<Spotting>,
  recording: Recording,
  analysis: Analysis,
  marks: readonly Mark[],
): { taken: number; noRoom: number } {
  const { moments: there, mostMicros } = host.value
  const speech = speechOfAnalysis(analysis)
  const cuts = cutsOf(analysis)
  const names = new Set(there.map((m) => `${m.peakMicros} ${m.label}`))
  const moments = marks.flatMap(({ inMicros, outMicros, label }): Moment[] => {
    const peakMicros = Math.min(inMicros, recording.durationMicros - 1)
    if (names.has(`${peakMicros} ${label}`)) return []
    const edges =
      outMicros === null
        ? momentAround(peakMicros, recording.durationMicros, speech, cuts, mostMicros)
        : { inMicros, outMicros }
    return [
      {
        ...edges,
        id: newId<MomentId>(),
        source: 'imported',
        peakMicros,
        label,
        score: null,
        reasons: [],
        state: 'open',
      },
    ]
  })
  const taken = moments.slice(0, Math.max(0, MAX_MOMENTS - there.length))
  if (taken.length > 0) addMoments(host, { moments: taken, label: 'Read marks' })
  return { taken: taken.length, noRoom: moments.length - taken.length }
}

export const setCut = command<{ ids: readonly MomentId[] }, Spotting>({
  id: 'set-cut',
  label: 'Cut highlights',
  apply: (draft, { ids }) => {
    for (const m of draft.moments) if (ids.includes(m.id)) m.state = 'cut'
  },
})

export const setFinding = command<
  { part: Partial<Pick<Spotting, 'weights' | 'reactionMicros' | 'mostMicros' | 'proposals'>> },
  Spotting
>({
  id: 'set-finding',
  label: 'Change finding',
  apply: (draft, { part }) => void Object.assign(draft, part),
})
