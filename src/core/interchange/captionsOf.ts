import { cuesOf } from '../compose/wordSteps'
import type { Edit } from '../model/edit'
import type { RecordingId } from '../model/ids'
import { timeMapOf } from '../time/timeMap'
import { writeSubRip, writeWebVtt, type WrittenCue } from './captionText'

/** A file of captions, ready to be saved. */
export interface CaptionFile {
  ending: 'vtt' | 'srt'
  type: string
  text: string
}

/** Captions of a highlight on the output clock, in both forms. */
export function captionFilesOf({ highlight }: Pick<Edit, 'highlight'>): CaptionFile[] {
  return written(highlight, cuesOf(highlight.words, timeMapOf(highlight)))
}

/** What is known to be said in a recording, on its own clock, whatever of it the highlight shows. */
export function captionFilesOfRecording({ highlight }: Pick<Edit, 'highlight'>, id: RecordingId): CaptionFile[] {
  return written(
    highlight,
    highlight.words.cues.filter((c) => c.recordingId === id && c.text.trim() !== ''),
  )
}

function written(
  { words }: Edit['highlight'],
  cues: readonly { fromMicros: number; toMicros: number; text: string; speakerId: string | null }[],
): CaptionFile[] {
  const made = cues.map(({ fromMicros, toMicros, text, speakerId }): WrittenCue => ({
    fromMicros,
    toMicros,
    text,
    voice: words.speakers.find((s) => s.id === speakerId)?.name ?? null,
  }))
  return [
    { ending: 'vtt', type: 'text/vtt', text: writeWebVtt(made) },
    { ending: 'srt', type: 'application/x-subrip', text: writeSubRip(made) },
  ]
}
