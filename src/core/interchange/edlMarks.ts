import { frameAtMicros, frameStartMicros, type FrameRate } from '../time/frameRate'
import { MICROS_PER_SECOND, type Micros } from '../time/micros'
import { formatTimecode, framesInHour, frameTimecode, parseTimecode } from '../time/timecode'
import { cleanLabel, MarkCollector, tooLarge, type Mark, type MarksRead } from './mark'

/**
 * Number, reel, channels, kind of edit (with a length, for all but cuts), then source in, source out, record in,
 * record out.
 */
const EVENT =
  /^\s*(\d{1,6})\s+(\S{1,32})\s+(\S{1,8})\s+([A-Z]\w{0,4})(?:\s+(\d{1,4}))?\s+(\S+)\s+(\S+)\s+(\S+)\s+(\S+)\s*$/
/**
 * A line that says something of the event before it, as lists of every make have them: a word in capitals, or an
 * arrow, and what it is about.
 */
const NOTE = /^(?:[A-Z][A-Z0-9]*\b|>+)/
/** No line of a list is longer. */
const MAX_LINE_LENGTH = 2000
const CLIP_NAME = /^\*\s*FROM CLIP NAME:\s*(.*)$/i
const LOCATOR = /^\*\s*LOC:\s*(\S+)\s+(\S+)?\s*(.*)$/i

interface Event {
  line: number
  text: string
  sourceIn: Micros
  sourceOut: Micros
  recordIn: Micros
  label: string
  locators: { line: number; text: string; at: Micros; label: string }[]
}

/**
 * Marks from a CMX 3600 edit decision list: an event a mark, from its source in to its source out; its locators are
 * marks too. Lists do not say their frame rate: `rate` is the recording's. Where source times begin at a whole hour
 * beyond the recording, that hour is taken off.
 */
export function readEdlMarks(text: string, rate: FrameRate, durationMicros: Micros): MarksRead {
  const refused = tooLarge(text)
  if (refused) return refused
  const marks = new MarkCollector(durationMicros)
  const events: Event[] = []
  let drop = false
  text
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\n|\r/)
    .forEach((raw, i) => {
      const line = i + 1
      const trimmed = raw.trim()
      if (trimmed === '' || /^TITLE:/i.test(trimmed)) return
      if (trimmed.length > MAX_LINE_LENGTH) return marks.problem(line, 'not-this-format', trimmed)
      if (/^FCM:/i.test(trimmed)) drop = /^FCM:\s*DROP/i.test(trimmed)
      else if (/^\d/.test(trimmed)) addEvent(events, marks, trimmed, line, rate, drop)
      else if (trimmed.startsWith('*')) addComment(events.at(-1), marks, trimmed, line, rate, drop)
      else if (!NOTE.test(trimmed)) marks.problem(line, 'not-this-format', trimmed)
    })
  const shift = wholeHourBefore(events, durationMicros)
  for (const e of events) {
    if (e.sourceOut > e.sourceIn)
      marks.add(
        e.line,
        { inMicros: Math.max(0, e.sourceIn - shift), outMicros: e.sourceOut - shift, label: e.label },
        e.text,
      )
    else marks.problem(e.line, 'ends-before-start', e.text)
    for (const l of e.locators)
      marks.add(
        l.line,
        { inMicros: Math.max(0, e.sourceIn - shift + l.at - e.recordIn), outMicros: null, label: l.label },
        l.text,
      )
  }
  return marks.result()
}

function addEvent(
  events: Event[],
  marks: MarkCollector,
  text: string,
  line: number,
  rate: FrameRate,
  drop: boolean,
): void {
  const match = EVENT.exec(text)
  if (!match) return marks.problem(line, 'not-this-format', text)
  const [sourceIn = null, sourceOut = null, recordIn = null, recordOut = null] = match
    .slice(6, 10)
    .map((t) => parseTimecode(t, rate, drop))
  if (sourceIn === null || sourceOut === null || recordIn === null || recordOut === null)
    return marks.problem(line, 'bad-time', text)
  events.push({
    line,
    text,
    sourceIn,
    sourceOut,
    recordIn,
    label: match[2] === 'AX' || match[2] === 'BL' ? '' : (match[2] ?? ''),
    locators: [],
  })
}

function addComment(
  event: Event | undefined,
  marks: MarkCollector,
  text: string,
  line: number,
  rate: FrameRate,
  drop: boolean,
): void {
  const name = CLIP_NAME.exec(text)?.[1]
  if (name !== undefined && event) event.label = name
  const locator = LOCATOR.exec(text)
  if (!locator || !event) return
  const at = parseTimecode(locator[1] ?? '', rate, drop)
  if (at === null) marks.problem(line, 'bad-time', text)
  else event.locators.push({ line, text, at, label: locator[3] ?? '' })
}

/** The whole hours that all source times begin after, when without them they lie inside the recording. */
function wholeHourBefore(events: readonly Event[], durationMicros: Micros): Micros {
  const hour = 3600 * MICROS_PER_SECOND
  const first = Math.min(...events.map((e) => e.sourceIn))
  return events.length > 0 && first >= durationMicros ? Math.floor(first / hour) * hour : 0
}

/** Marks as a CMX 3600 list, one after the other on the record side; a mark without an end lasts a second. */
export function writeEdlMarks(marks: readonly Mark[], title: string, rate: FrameRate): string {
  const lines = [`TITLE: ${cleanLabel(title).slice(0, 70)}`, 'FCM: NON-DROP FRAME', '']
  const oneFrame = frameStartMicros(1, rate)
  // Lists begin an hour in, as is the custom.
  let recordIn = framesInHour(rate)
  marks.forEach((m, i) => {
    const length = Math.max(oneFrame, (m.outMicros ?? m.inMicros + MICROS_PER_SECOND) - m.inMicros)
    const frames = frameAtMicros(m.inMicros + length, rate) - frameAtMicros(m.inMicros, rate)
    const times = [
      ...[m.inMicros, m.inMicros + length].map((t) => formatTimecode(t, rate)),
      ...[recordIn, recordIn + frames].map((n) => frameTimecode(n, rate)),
    ]
    lines.push(
      `${String(i + 1).padStart(3, '0')}  AX       V     C        ${times.join(' ')}`,
      `* FROM CLIP NAME: ${m.label || `Mark ${i + 1}`}`,
      '',
    )
    recordIn += frames
  })
  return `${lines.join('\r\n')}\r\n`
}
