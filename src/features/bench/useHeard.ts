import { useLiveQuery } from 'dexie-react-hooks'
import { usedRecordings, type Edit } from '@/core/model/edit'
import type { SpeechOf } from '@/core/sound/ducking'
import { speechOf } from '@/store/analyses'

const NOT_YET: SpeechOf = new Map()

/** Where the highlight's recordings hold speech, as far as they have been listened to. */
export function useHeard(edit: Edit): SpeechOf {
  const ids = usedRecordings(edit).map((r) => r.id).join()
  return useLiveQuery(() => speechOf(usedRecordings(edit)), [ids]) ?? NOT_YET
}
