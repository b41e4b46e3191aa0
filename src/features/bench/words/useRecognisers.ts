import { useEffect, useState } from 'react'
import type { Recording } from '@/core/model/recording'
import { RECOGNISERS, type Recogniser } from '@/media/speech/recogniser'

/** The recognisers that can make something of a recording. */
export function useRecognisers(recording: Recording): readonly Recogniser[] {
  const [able, setAble] = useState<readonly Recogniser[]>([])
  useEffect(() => {
    let live = true
    void Promise.all(RECOGNISERS.map((r) => r.canDo(recording))).then((can) => {
      const all = RECOGNISERS.filter((_, i) => can[i])
      const listens = all.some((r) => r.id !== 'blanks' && !r.simulated)
      if (live) setAble(all.filter((r) => !r.simulated || !listens))
    })
    return () => {
      live = false
    }
  }, [recording])
  return able
}
