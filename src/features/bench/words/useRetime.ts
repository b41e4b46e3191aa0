import { useCallback, useRef } from 'react'
import type { CueId } from '@/core/model/ids'
import { clampMicros } from '@/core/time/micros'
import { quietly } from '@/diagnostics/note'
import { timeCues } from '@/edit/words'
import { useBenchContext, usePassage } from '../benchContext'
import { useAlign } from './useAlign'

/**
 * Times the words of a caption anew once somebody has written other words, in the same step of the history. The
 * caption stays where it is; where its words cannot be made out, so do they.
 */
export function useRetime(): (id: CueId, gesture: string) => void {
  const { session } = useBenchContext()
  const { recording } = usePassage()
  const align = useAlign()
  const latest = useRef({ align, recording })
  latest.current = { align, recording }
  return useCallback(
    (id, gesture) => {
      const { align, recording } = latest.current
      const cueNow = () => session.value.highlight.words.cues.find((c) => c.id === id)
      const cue = cueNow()
      if (!cue || cue.recordingId !== recording.id || !recording.sound || cue.text.trim() === '') return
      const retime = async () => {
        const outcome = await align.timeCues([cue])
        // Whoever has written on, or taken it back, has other words.
        if (outcome.kind !== 'done' || cueNow()?.text !== cue.text) return
        const { fromMicros, toMicros } = cueNow() ?? cue
        const inside = (t: number) => clampMicros(t, fromMicros, toMicros)
        const timed = outcome.timed.map(({ words }) => ({
          id,
          fromMicros,
          toMicros,
          words: words.map((w) => ({ ...w, fromMicros: inside(w.fromMicros), toMicros: inside(w.toMicros) })),
        }))
        if (timed.length > 0) timeCues(session, { timed }, gesture)
      }
      retime().catch(quietly('timing a caption anew'))
    },
    [session],
  )
}
