import { showsSomebody } from '@/core/model/region'
import { whoSpeaks } from '@/core/detect/regions/whoSpeaks'
import { toEvenPixels } from '@/core/geometry/evenGrid'
import { setSpeakersByName } from '@/edit/words'
import { useBenchContext, useParts } from '../benchContext'
import { stirIn } from '@/shared/looks/looks'

/**
 * Gives the lines of the recording that is worked on to whom the picture shows speaking, by their regions' names.
 * Says how many; null when there are not two to choose from.
 */
export function useWhoSpeaks(): () => Promise<number | null> {
  const { session, files } = useBenchContext()
  const { recording, setup } = useParts()
  return async () => {
    const regions = setup.regions.filter((r) => showsSomebody(r.role))
    const file = files.get(recording.id)
    if (regions.length < 2 || !file) return null
    const cues = session.value.highlight.words.cues.filter((c) => c.recordingId === recording.id)
    const stir = await stirIn(
      recording,
      file,
      regions.map((r) => toEvenPixels(r.bounds, recording.video)),
      cues.map(({ fromMicros, toMicros }) => ({ fromMicros, toMicros })),
    )
    const turns = whoSpeaks(stir)
    setSpeakersByName(session, {
      names: new Map(
        cues.flatMap((cue, i) => {
          const region = regions[turns[i] ?? -1]
          return region ? [[cue.id, region.name] as const] : []
        }),
      ),
    })
    return turns.filter((f) => f !== null).length
  }
}
