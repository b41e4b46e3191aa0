import { onFrame } from '@/core/cut/passages'
import type { Highlight } from '@/core/model/highlight'
import type { Recording } from '@/core/model/recording'
import type { Moment } from '@/core/model/spotting'
import { createHighlight } from '@/store/highlights'
import { formatTime } from '@/ui/format'
import { setCut, type SpottingSession } from './marking'

/** Makes a highlight of each moment, which remembers where it came from, and says so on the moments. */
export async function cutHighlights(session: SpottingSession, recording: Recording, moments: readonly Moment[]): Promise<Highlight[]> {
  const made: Highlight[] = []
  for (const { inMicros, outMicros, label } of moments) {
    const name = label || `${recording.name}, ${formatTime(inMicros, 0)}`
    const cut = { inMicros: onFrame(recording, inMicros), outMicros: Math.min(recording.durationMicros, onFrame(recording, outMicros)) }
    made.push(await createHighlight(recording, { name, ...cut, origin: { recordingId: recording.id, inMicros, outMicros, label } }))
  }
  // A proposal that was kept is in the session already: only decided moments are ever cut.
  setCut(session, moments.map((m) => m.id))
  return made
}
