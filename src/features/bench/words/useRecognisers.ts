import { useEffect, useState } from 'react'
import type { Recording } from '@/core/model/recording'
import { usableRecognisers, type Recogniser } from '@/media/speech/recogniser'

/** The recognisers that can make something of a recording. */
export function useRecognisers(recording: Recording): readonly Recogniser[] {
  const [able, setAble] = useState<readonly Recogniser[]>([])
  useEffect(() => {
    let live = true
    void usableRecognisers(recording).then((usable) => live && setAble(usable))
    return () => {
      live = false
    }
  }, [recording])
  return able
}
