import type { RecordingId } from '@/core/model/ids'
import { database, type StoredCaptionText } from './database'

/** Keeps the file of captions that lay beside a recording, for it to be offered. */
export async function keepTextBeside(recordingId: RecordingId, file: File): Promise<void> {
  await database().captionTexts.put({ recordingId, fileName: file.name, blob: file })
}

/** The file of captions that lay beside a recording; null where there was none. */
export async function textBeside(recordingId: RecordingId): Promise<StoredCaptionText | null> {
  return (await database().captionTexts.get(recordingId)) ?? null
}
