import { cutsOf, type Analysis } from '../detect/analysis'
import { LIVELINESS_STEP_MICROS, livelinessOf } from '../detect/liveliness'
import { proposeMoments, riseAndFall, type ProposedMoment } from '../detect/moments'
import { speechOfAnalysis } from '../detect/speech'
import type { Weights } from '../model/spotting'
import type { Micros } from '../time/micros'
import { draftEdges } from './draftEdges'

/**
 * The liveliest stretches of a recording, best first, `count` at most, each from where its story begins to where it
 * ends; see {@link draftEdges}. Those whose stories overlap are one.
 */
export function proposeDrafts(
  analysis: Analysis,
  weights: Weights,
  { count, mostMicros }: { count: number; mostMicros: Micros },
): ProposedMoment[] {
  const { durationMicros } = analysis
  const liveliness = livelinessOf(analysis, weights)
  const speech = speechOfAnalysis(analysis)
  const moments = proposeMoments(liveliness, durationMicros, speech, cutsOf(analysis), { count, mostMicros })
  const told: ProposedMoment[] = []
  for (const moment of moments) {
    const peak = Math.min(liveliness.score.length - 1, Math.floor(moment.peakMicros / LIVELINESS_STEP_MICROS))
    const lively = riseAndFall(liveliness.score, peak)
    const edges = draftEdges({
      lively: { inMicros: lively.inMicros, outMicros: Math.min(durationMicros, lively.outMicros) },
      peakMicros: moment.peakMicros,
      speech,
      durationMicros,
      mostMicros,
    })
    if (!told.some((t) => t.inMicros < edges.outMicros && t.outMicros > edges.inMicros))
      told.push({ ...moment, ...edges })
  }
  return told
}
