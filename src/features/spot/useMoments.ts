import { startTransition, useEffect, useMemo, useState } from 'react'
import { cutsOf, type Analysis } from '@/core/detect/analysis'
import { livelinessOf, type Liveliness } from '@/core/detect/liveliness'
import { proposeMoments, type ProposedMoment } from '@/core/detect/moments'
import { speechOfAnalysis } from '@/core/detect/speech'
import type { RecordingId } from '@/core/model/ids'
import type { Moment } from '@/core/model/spotting'
import { withProposals } from '@/core/detect/proposals'
import { liveAnalyses, type AnalysisState, type LiveAnalysis } from '@/shared/recordings/analyser'
import { useSpotContext, useSpotting } from './spotContext'

/** While parts come in, what is shown follows this often. */
const EVERY_MS = 1500

export interface SpottedMoments {
  analysis: Analysis
  state: AnalysisState
  liveliness: Liveliness | null
  moments: Moment[]
}

/** What has been found in the recording so far, and what was decided about it. */
export function useMoments(): SpottedMoments {
  const { recording } = useSpotContext()
  const { durationMicros } = recording
  const live = useGrowing(recording.id)
  const nothing = useMemo<Analysis>(() => ({ durationMicros, sound: new Map(), pictures: new Map() }), [durationMicros])
  const analysis = live?.analysis ?? nothing
  const state = live?.state ?? WAITING
  const { weights, mostMicros, proposals, moments: decided } = useSpotting()
  const liveliness = useMemo(
    () => (analysis.sound.size + analysis.pictures.size > 0 ? livelinessOf(analysis, weights) : null),
    [analysis, weights],
  )
  const proposed = useMemo<ProposedMoment[]>(
    () =>
      liveliness
        ? proposeMoments(liveliness, durationMicros, speechOfAnalysis(analysis), cutsOf(analysis), {
            count: proposals,
            mostMicros,
          })
        : [],
    [liveliness, analysis, durationMicros, proposals, mostMicros],
  )
  const moments = useMemo(() => withProposals(decided, proposed), [decided, proposed])
  return useMemo(() => ({ analysis, state, liveliness, moments }), [analysis, state, liveliness, moments])
}

const WAITING: AnalysisState = { kind: 'waiting' }

/**
 * What is known of a recording: a change of state at once, parts at most every {@link EVERY_MS}; never in the way of
 * a hand at work.
 */
function useGrowing(id: RecordingId): LiveAnalysis | undefined {
  const [shown, setShown] = useState(() => liveAnalyses.getState()[id])
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined
    const show = () => {
      clearTimeout(timer)
      timer = undefined
      startTransition(() => setShown(liveAnalyses.getState()[id]))
    }
    show()
    const unsubscribe = liveAnalyses.subscribe((all, before) => {
      if (all[id]?.state !== before[id]?.state) show()
      else if (all[id] !== before[id]) timer ??= setTimeout(show, EVERY_MS)
    })
    return () => {
      clearTimeout(timer)
      unsubscribe()
    }
  }, [id])
  return shown
}
