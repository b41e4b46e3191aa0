import type { Recording } from '../model/recording'
import { readCsvMarks } from './csvMarks'
import { readEdlMarks } from './edlMarks'
import { MAX_CHARACTERS, type MarksRead } from './mark'
import { readVttMarks } from './vttMarks'

/** The limit is in characters; a file of more bytes than four for each has more. */
export const MAX_MARK_BYTES = MAX_CHARACTERS * 4

/** Marks of a file for a recording. The kind of file is told by its ending, or else by how it begins. */
export function readMarks(
  fileName: string,
  text: string,
  { video, durationMicros }: Pick<Recording, 'video' | 'durationMicros'>,
): MarksRead {
  if (/\.vtt$/i.test(fileName) || text.startsWith('WEBVTT')) return readVttMarks(text, durationMicros)
  if (/\.edl$/i.test(fileName) || /^\s*TITLE:/i.test(text)) return readEdlMarks(text, video.frameRate, durationMicros)
  return readCsvMarks(text, video.frameRate, durationMicros)
}
