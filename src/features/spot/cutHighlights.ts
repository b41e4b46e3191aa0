import { onFrame } from '@/core/cut/passages'
import type { PassageId } from '@/core/model/ids'
import type { Highlight } from '@/core/model/highlight'
import type { Recording } from '@/core/model/recording'
import type { Moment } from '@/core/model/spotting'
import { createHighlight, editSession, loadEdit } from '@/store/highlights'
import { formatTime } from '@/ui/format'
import { newId } from '@/core/model/ids'
import { setCut } from '@/edit/moments'
import type { SpottingSession } from '@/store/spottings'
import { insertPassages } from '@/edit/passages'
import { wording } from './wording'

/** Makes a highlight of each moment, which remembers where it came from, and says so on the moments. */
export async function cutHighlights(
  session: SpottingSession,
  recording: Recording,
  moments: readonly Moment[],
): Promise<Highlight[]> {
  const made: Highlight[] = []
  for (const { inMicros, outMicros, label } of moments) {
    const name = label || `${recording.name}, ${formatTime(inMicros, 0)}`
    made.push(
      await createHighlight(recording, {
        name,
        ...cutOf(recording, { inMicros, outMicros }),
        origin: { recordingId: recording.id, inMicros, outMicros, label },
      }),
    )
  }
  // A proposal that was kept is in the session already: only decided moments are ever cut.
  setCut(session, { ids: moments.map((m) => m.id) })
  return made
}

const cutOf = (recording: Recording, { inMicros, outMicros }: Pick<Moment, 'inMicros' | 'outMicros'>) => ({
  inMicros: onFrame(recording, inMicros),
  outMicros: Math.min(recording.durationMicros, onFrame(recording, outMicros)),
})

/** Makes one highlight of several moments, a passage each, in order of time, and says so on the moments. */
export async function cutAsOne(
  session: SpottingSession,
  recording: Recording,
  moments: readonly Moment[],
): Promise<Highlight> {
  const inOrder = [...moments].sort((a, b) => a.inMicros - b.inMicros)
  const [first, ...rest] = inOrder
  if (!first) throw new RangeError('moments: empty')
  const made = await createHighlight(recording, {
    name: `${recording.name}, ${moments.length} moments`,
    ...cutOf(recording, first),
  })
  const loaded = await loadEdit(made.id)
  if (loaded.ok && rest.length > 0) {
    const edit = editSession(loaded)
    const [like] = edit.value.highlight.passages
    if (like)
      insertPassages(edit, {
        added: rest.map((m) => ({ ...like, ...cutOf(recording, m), id: newId<PassageId>() })),
        after: like.id,
        label: wording.addMoments(rest.length),
      })
    await edit.flush()
  }
  setCut(session, { ids: moments.map((m) => m.id) })
  return made
}
