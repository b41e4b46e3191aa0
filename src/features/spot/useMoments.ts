import { useEffect, useMemo, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { cutsOf, type Analysis } from '@/core/detect/analysis'
import { livelinessOf, type Liveliness } from '@/core/detect/liveliness'
import { proposeMoments, type ProposedMoment } from '@/core/detect/moments'
import { speechOfAnalysis } from '@/core/detect/speech'
import type { Moment } from '@/core/model/spotting'
import { liveAnalyses, type AnalysisState } from './analyser'
import { withProposals } from './marking'
import { useSpotContext, useSpotting } from './spotContext'

/** While parts come in, proposals are worked out anew this often. */
const EVERY_MS = 1500

export interface Found {
  analysis: Analysis
  state: AnalysisState
  liveliness: Liveliness | null
  moments: Moment[]
}

/** What has been found in the recording so far, and what was decided about it. */
export function useMoments(): Found {
  const { recording } = useSpotContext()
  const { durationMicros } = recording
  const live = useStore(liveAnalyses, (all) => all[recording.id])
  const nothing = useMemo<Analysis>(() => ({ durationMicros, sound: new Map(), pictures: new Map() }), [durationMicros])
  const analysis = live?.analysis ?? nothing
  const { weights, mostMicros, proposals, moments: decided } = useSpotting()
  const settled = useEvery(analysis, live?.state.kind === 'running' ? EVERY_MS : 0)
  const liveliness = useMemo(() => (settled.sound.size + settled.pictures.size > 0 ? livelinessOf(settled, weights) : null), [settled, weights])
  const proposed = useMemo<ProposedMoment[]>(
    () => (liveliness ? proposeMoments(liveliness, durationMicros, speechOfAnalysis(settled), cutsOf(settled), { count: proposals, mostMicros }) : []),
    [liveliness, settled, durationMicros, proposals, mostMicros],
  )
  const moments = useMemo(() => withProposals(decided, proposed), [decided, proposed])
  return { analysis, state: live?.state ?? { kind: 'waiting' }, liveliness, moments }
}

/** `value`, followed at most once in `ms`; at once when that is 0. */
function useEvery<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value)
  const latest = useRef(value)
  latest.current = value
  useEffect(() => {
    if (ms === 0) return
    const timer = setInterval(() => setSettled(latest.current), ms)
    return () => clearInterval(timer)
  }, [ms])
  return ms === 0 ? value : settled
}
