import type { Analysis, PicturesPart, SoundPart } from '@/core/detect/analysis'
import { speechOfAnalysis } from '@/core/detect/speech'
import type { RecordingId } from '@/core/model/ids'
import type { Recording } from '@/core/model/recording'
import type { SpeechOf } from '@/core/sound/ducking'
import { database } from './database'

/** One looked-through part of a recording. */
export type AnalysisPart = { recordingId: RecordingId; index: number } & (
  { kind: 'sound'; part: SoundPart } | { kind: 'pictures'; part: PicturesPart }
)
export type AnalysisPartKey = [RecordingId, AnalysisPart['kind'], number]

/** Keeps a part. It can be made again, so a full disk is no misfortune; says whether it could be kept. */
export async function keepAnalysisPart(part: AnalysisPart): Promise<boolean> {
  return database()
    .analyses.put(part)
    .then(
      () => true,
      () => false,
    )
}

/** Everything that has been found out about a recording so far. */
export async function analysisOf({ id, durationMicros }: Pick<Recording, 'id' | 'durationMicros'>): Promise<Analysis> {
  const sound = new Map<number, SoundPart>()
  const pictures = new Map<number, PicturesPart>()
  for (const stored of await database().analyses.where('recordingId').equals(id).toArray())
    if (stored.kind === 'sound') sound.set(stored.index, stored.part)
    else pictures.set(stored.index, stored.part)
  return { durationMicros, sound, pictures }
}

/** Where recordings hold speech, as far as they have been listened to. */
export async function speechOf(recordings: readonly Recording[]): Promise<SpeechOf> {
  const entries = await Promise.all(recordings.map(async (r) => [r.id, speechOfAnalysis(await analysisOf(r))] as const))
  return new Map(entries.filter(([, stretches]) => stretches.length > 0))
}
