import { recordingOf, type Edit } from '../model/edit'
import type { RecordingId } from '../model/ids'
import { clampMicros, type Micros } from '../time/micros'
import type { Feed } from './composition'

/** A moment of a recording. Beyond its ends its first or last frame stands still. */
export function feedAt(edit: Edit, recordingId: RecordingId, micros: Micros, lane: string): Feed {
  return { recordingId, micros: clampMicros(micros, 0, recordingOf(edit, recordingId).durationMicros), lane }
}
