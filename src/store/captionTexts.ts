import type { RecordingId } from '@/core/model/ids'
import { database, type StoredCaptionText } from './database'

/** The file of captions that lay beside a recording; null where there was none. */
export async function textBeside(recordingId: RecordingId): Promise<StoredCaptionText | null> {
  return (await database().captionTexts.get(recordingId)) ?? null
}
