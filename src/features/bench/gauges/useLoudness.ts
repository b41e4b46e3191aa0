import { useEffect, useMemo, useRef, useState } from 'react'
import type { Edit } from '@/core/model/edit'
import type { Loudness } from '@/core/sound/loudness'
import { soundPlan } from '@/core/sound/soundPlan'
import { timeMapOf } from '@/core/time/timeMap'
import { inspector } from '@/media/inspect/inspector'
import { useBenchContext, useCalmEdit, useFootage } from '../benchContext'
import { useHeard } from '../useHeard'

/** Listening takes a core for a while: not before the hand has rested, nor while a highlight is being opened. */
const REST_MS = 40
const OPENING_MS = 4000

/**
 * How loud the highlight is as it stands, a while after its sound was changed last, and how loud it was before that;
 * null while that is not known, or when nothing is heard.
 */
export function useLoudness(): { loudness: Loudness | null; before: Loudness | null; stale: boolean } {
  const { files } = useBenchContext()
  const edit = useCalmEdit()
  const heard = useHeard(edit, files)
  const { highlight, recordings } = useFootage()
  const sounding = useMemo(
    () => soundOf({ highlight, recordings, soundFiles: edit.soundFiles }, heard),
    [highlight, recordings, edit.soundFiles, heard],
  )
  const [measured, setMeasured] = useState<{ of: string; loudness: Loudness; before: Loudness | null } | null>(null)
  const firstTime = useRef(true)
  const latest = useRef({ edit, heard })
  latest.current = { edit, heard }
  useEffect(() => {
    if (sounding === '') return
    let live = true
    const waiting = setTimeout(
      () => {
        firstTime.current = false
        const { edit, heard } = latest.current
        // A file that cannot be read is told where it is played.
        void inspector()
          .loudness(edit, files, heard)
          .then(
            (loudness) =>
              live &&
              loudness &&
              setMeasured((known) => ({
                of: sounding,
                loudness,
                before: known?.of === sounding ? known.before : (known?.loudness ?? null),
              })),
            () => {},
          )
      },
      firstTime.current ? OPENING_MS : REST_MS,
    )
    return () => {
      live = false
      clearTimeout(waiting)
    }
  }, [sounding, files])
  return {
    loudness: sounding === '' ? null : (measured?.loudness ?? null),
    before: sounding === '' ? null : (measured?.before ?? null),
    stale: sounding !== '' && measured?.of !== sounding,
  }
}

/** All that decides how a highlight sounds, to be compared; empty when nothing is heard. */
function soundOf(
  footage: Pick<Edit, 'highlight' | 'recordings' | 'soundFiles'>,
  heard: ReturnType<typeof useHeard>,
): string {
  const { passages, beds, joinTiming, limitDb } = footage.highlight
  if (soundPlan(footage, timeMapOf(footage.highlight)).length === 0) return ''
  const played = passages.map(({ recordingId, inMicros, outMicros, speedPercent, strikes, sound, join, feeds }) => [
    recordingId,
    inMicros,
    outMicros,
    speedPercent,
    strikes,
    sound,
    join,
    feeds,
  ])
  return JSON.stringify([played, beds, joinTiming, limitDb, beds.some((b) => b.duckDb > 0) ? [...heard] : []])
}
