import { useEffect, useMemo, useRef } from 'react'
import { useLiveQuery } from 'dexie-react-hooks'
import { speechOfAnalysis } from '@/core/detect/speech'
import { usedRecordings, type Edit } from '@/core/model/edit'
import type { SpeechOf } from '@/core/sound/ducking'
import { speechOf } from '@/store/analyses'
import { useStore } from 'zustand'
import { analyse, liveAnalyses } from '../spot/analyser'

const NOT_YET: SpeechOf = new Map()

/** Where the highlight's recordings hold speech; where music goes down under it, they are listened to when they have not been yet. */
export function useHeard(edit: Edit, files: ReadonlyMap<string, Blob>): SpeechOf {
  const ducks = edit.highlight.beds.some((b) => b.duckDb > 0)
  const used = usedRecordings(edit)
  const spans = used.map((r) => {
    const own = edit.highlight.passages.filter((p) => p.recordingId === r.id)
    return `${r.id} ${Math.min(...own.map((p) => p.inMicros))} ${Math.max(...own.map((p) => p.outMicros))}`
  })
  const wanted = ducks ? spans.join('|') : ''
  const latest = useRef(edit)
  latest.current = edit
  useEffect(() => {
    if (wanted === '') return
    for (const span of wanted.split('|')) {
      const [id = '', from = '0', to = '0'] = span.split(' ')
      const recording = latest.current.recordings.find((r) => r.id === id)
      const file = files.get(id)
      if (recording && file) void analyse(recording, file, { kind: 'sound', fromMicros: Number(from), toMicros: Number(to) }).catch(() => {})
    }
  }, [wanted, files])

  const ids = used.map((r) => r.id).join()
  const stored = useLiveQuery(() => speechOf(usedRecordings(edit)), [ids]) ?? NOT_YET
  const live = useStore(liveAnalyses)
  return useMemo(() => {
    const heard = new Map(stored)
    for (const [id, { analysis }] of Object.entries(live)) if (analysis.sound.size > 0) heard.set(id as keyof typeof live, speechOfAnalysis(analysis))
    return heard
  }, [stored, live])
}
