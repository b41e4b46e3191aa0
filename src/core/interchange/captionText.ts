import type { Micros } from '../time/micros'
import { escapeVtt, formatVttTime } from './vttText'

/** A caption on the clock of the file it is written to. `voice`: who says it. */
export interface WrittenCue {
  fromMicros: Micros
  toMicros: Micros
  text: string
  voice: string | null
}

/** A blank line would end a cue. */
const lines = (text: string) =>
  text
    .split(/\r\n?|\n/)
    .map((l) => l.trim())
    .filter((l) => l !== '')
    .join('\n')

/** WebVTT (W3C), UTF-8, times to the millisecond. */
export function writeWebVtt(cues: readonly WrittenCue[]): string {
  const blocks = cues.map(
    ({ fromMicros, toMicros, text, voice }) =>
      `${formatVttTime(fromMicros)} --> ${formatVttTime(toMicros)}\n${voice ? `<v ${escapeVtt(voice.replaceAll(/\s+/g, ' '))}>` : ''}${escapeVtt(lines(text))}`,
  )
  return `${['WEBVTT', ...blocks].join('\n\n')}\n`
}

/** SubRip, UTF-8; times with a comma, as every reader of it wants. Who speaks is not told: it has no place for that. */
export function writeSubRip(cues: readonly WrittenCue[]): string {
  return cues
    .map(
      ({ fromMicros, toMicros, text }, i) =>
        `${i + 1}\n${formatVttTime(fromMicros).replace('.', ',')} --> ${formatVttTime(toMicros).replace('.', ',')}\n${lines(text)}\n`,
    )
    .join('\n')
}
