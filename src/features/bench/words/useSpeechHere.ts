import { useRef } from 'react'
import { speechOfAnalysis } from '@/core/detect/speech'
import type { SpeechStretch } from '@/core/sound/ducking'
import { analysisOf } from '@/store/analyses'
import { analyse } from '@/shared/recordings/analyser'
import { useBenchContext, useHighlight, usePassage } from '../benchContext'

/**
 * Listens to the recording that is worked on, between the first and the last moment that the highlight plays of it:
 * where somebody speaks.
 */
export function useSpeechHere(): () => Promise<SpeechStretch[]> {
  const { files } = useBenchContext()
  const { passages } = useHighlight()
  const { recording } = usePassage()
  const latest = useRef({ passages, recording })
  latest.current = { passages, recording }
  return async () => {
    const { passages, recording } = latest.current
    const file = files.get(recording.id)
    if (!file) return []
    const own = passages.filter((p) => p.recordingId === recording.id)
    const fromMicros = Math.min(...own.map((p) => p.inMicros))
    const toMicros = Math.max(...own.map((p) => p.outMicros))
    await analyse(recording, file, { kind: 'sound', stretches: [{ fromMicros, toMicros }] })
    return speechOfAnalysis(await analysisOf(recording)).filter(
      (s) => s.toMicros > fromMicros && s.fromMicros < toMicros,
    )
  }
}
