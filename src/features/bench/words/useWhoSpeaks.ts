import { showsSomebody } from '@/core/model/region'
import type { Spoken } from '@/core/turns/turns'
import type { Cue } from '@/core/model/words'
import { setSpeakersByName } from '@/edit/words'
import { speakersIn } from '@/shared/looks/speakers'
import { useBenchContext, useParts } from '../benchContext'

/**
 * Gives the lines of the recording that is worked on to whom the picture shows speaking, by their regions' names.
 * Says how many; null when there are not two to choose from.
 */
export function useWhoSpeaks(): () => Promise<number | null> {
  const { session, files } = useBenchContext()
  const { recording, setup, passage } = useParts()
  return async () => {
    const regions = setup.regions.filter((r) => showsSomebody(r.role))
    const file = files.get(recording.id)
    if (regions.length < 2 || !file) return null
    const cues = session.value.highlight.words.cues.filter((c) => c.recordingId === recording.id)
    const everywhere = { ...passage, inMicros: 0, outMicros: recording.durationMicros }
    const spoken = await speakersIn(recording, file, everywhere, regions, cues)
    const names = new Map(
      cues.flatMap((cue) => {
        const region = regions[speakerOf(cue, spoken) ?? -1]
        return region ? [[cue.id, region.name] as const] : []
      }),
    )
    setSpeakersByName(session, { names })
    return names.size
  }
}

/** Who speaks most of a line. */
function speakerOf({ fromMicros, toMicros }: Cue, spoken: readonly Spoken[]): number | null {
  const shares = new Map<number, number>()
  for (const s of spoken) {
    const inside = Math.min(toMicros, s.toMicros) - Math.max(fromMicros, s.fromMicros)
    if (s.speaker !== null && inside > 0) shares.set(s.speaker, (shares.get(s.speaker) ?? 0) + inside)
  }
  return [...shares].sort(([, a], [, b]) => b - a)[0]?.[0] ?? null
}
