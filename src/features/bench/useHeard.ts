import { useEffect, useMemo, useRef } from 'react'
import { useLiveQuery } from 'dexie-react-hooks'
import { speechOfAnalysis } from '@/core/detect/speech'
import { usedRecordings, type Edit } from '@/core/model/edit'
import type { RecordingId } from '@/core/model/ids'
import type { SpeechOf } from '@/core/sound/ducking'
import type { Micros } from '@/core/time/micros'
import { quietly } from '@/diagnostics/note'
import { speechOf } from '@/store/analyses'
import { useStore } from 'zustand'
import { analyse, liveAnalyses } from '@/shared/recordings/analyser'

const NOT_YET: SpeechOf = new Map()

/**
 * Where the highlight's recordings hold speech, as far as that is known; where music goes down under it, they are
 * listened to.
 */
export function useHeard(edit: Edit, files: ReadonlyMap<string, Blob>): SpeechOf {
  useListening(
    edit,
    files,
    edit.highlight.beds.some((b) => b.duckDb > 0),
  )
  const ids = usedRecordings(edit)
    .map((r) => r.id)
    .join()
  const stored = useLiveQuery(() => speechOf(usedRecordings(edit)), [ids]) ?? NOT_YET
  const live = useStore(liveAnalyses)
  return useMemo(() => {
    const heard = new Map(stored)
    for (const [id, { analysis }] of Object.entries(live))
      if (analysis.sound.size > 0) heard.set(id as keyof typeof live, speechOfAnalysis(analysis))
    return heard
  }, [stored, live])
}

/** Listens for speech in what the highlight's passages play, where that was not done before, if it is `wanted`. */
export function useListening(
  { highlight, recordings }: Pick<Edit, 'highlight' | 'recordings'>,
  files: ReadonlyMap<string, Blob>,
  wanted: boolean,
): void {
  const played = wanted
    ? JSON.stringify(
        highlight.passages.map(({ recordingId, inMicros, outMicros }) => ({
          recordingId,
          fromMicros: inMicros,
          toMicros: outMicros,
        })),
      )
    : '[]'
  const latest = useRef(recordings)
  latest.current = recordings
  useEffect(() => {
    const passages = JSON.parse(played) as { recordingId: RecordingId; fromMicros: Micros; toMicros: Micros }[]
    for (const recording of latest.current) {
      const stretches = passages.filter((p) => p.recordingId === recording.id)
      const file = files.get(recording.id)
      if (file && stretches.length > 0)
        void analyse(recording, file, { kind: 'sound', stretches }).catch(quietly('listening to a recording'))
    }
  }, [played, files])
}
