import type { PassageId } from '@/core/model/ids'
import type { Micros } from '@/core/time/micros'

/** Where somebody is in what is told. */
export interface SheetView {
  /** The passage that is worked on: the one at the playhead, or the one whose edge is being trimmed. */
  passageId: PassageId | null
  /** A stretch of the output that is marked, to be struck out or played over and over; end-exclusive. */
  stretch: { fromMicros: Micros; toMicros: Micros } | null
  /** Whether what to do with scene changes and cuts is asked: as long as there are any, or as somebody wants. */
  asksChanges: 'by-itself' | 'yes' | 'no'
}

export const NEW_SHEET_VIEW: SheetView = { passageId: null, stretch: null, asksChanges: 'by-itself' }
