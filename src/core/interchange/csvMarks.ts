import Papa from 'papaparse'
import type { FrameRate } from '../time/frameRate'
import { toMicros, toSeconds, type Micros } from '../time/micros'
import { parseTimecode } from '../time/timecode'
import { MarkCollector, tooLarge, type Mark, type MarksRead } from './mark'

const START = /^(time|start|in|from|begin|timestamp|timecode|position|offset)\b/i
const END = /^(end|out|to|until|stop)\b/i
const LABEL = /^(label|name|title|text|note|comment|description|marker|what)\b/i

/** `83.5`, `1:23.5`, `1:02:03.25` or `HH:MM:SS:FF` → recording time; null when it is none of them. */
export function parseTime(text: string, rate: FrameRate): Micros | null {
  const trimmed = text.trim().replace(',', '.')
  const timecode = parseTimecode(trimmed, rate)
  if (timecode !== null && /:\d\d[:;]\d\d+$/.test(trimmed) && trimmed.split(/[:;]/).length === 4) return timecode
  const match = /^(?:(?:(\d{1,3}):)?(\d{1,3}):)?(\d{1,6}(?:\.\d{1,9})?)\s*s?$/.exec(trimmed)
  if (!match) return null
  const [, h = '0', m = '0', s = ''] = match
  if (trimmed.includes(':') && Number(s) >= 60) return null
  return toMicros((Number(h) * 60 + Number(m)) * 60 + Number(s))
}

/**
 * Marks from comma, semicolon or tab separated text: with headings (a time, optionally an end and a label, in any
 * order) or without (time, then label). `rate` is the recording's, for timecodes.
 */
export function readCsvMarks(text: string, rate: FrameRate, durationMicros: Micros): MarksRead {
  const refused = tooLarge(text)
  if (refused) return refused
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: false })
  const marks = new MarkCollector(durationMicros)
  const first = data.find((row) => row.some((cell) => cell.trim() !== '')) ?? []
  const headed = parseTime(first[0] ?? '', rate) === null && first.some((cell) => START.test(cell.trim()))
  const columns = headed ? columnsOf(first) : { start: 0, end: -1, label: 1 }
  data.forEach((row, i) => {
    if (row.every((cell) => cell.trim() === '') || (headed && row === first)) return
    const line = i + 1
    const shown = row.join(', ')
    const start = row[columns.start]?.trim() ?? ''
    if (start === '') return marks.problem(line, 'no-time', shown)
    const inMicros = parseTime(start, rate)
    if (inMicros === null) return marks.problem(line, 'bad-time', shown)
    const endText = row[columns.end]?.trim() ?? ''
    const outMicros = endText === '' ? null : parseTime(endText, rate)
    if (endText !== '' && outMicros === null) return marks.problem(line, 'bad-time', shown)
    marks.add(line, { inMicros, outMicros, label: row[columns.label] ?? '' }, shown)
  })
  return marks.result()
}

function columnsOf(headings: readonly string[]): { start: number; end: number; label: number } {
  const find = (pattern: RegExp) => headings.findIndex((h) => pattern.test(h.trim()))
  return { start: find(START), end: find(END), label: find(LABEL) }
}

/** Marks as comma separated text with headings; a cell that a spreadsheet would run as a formula is made plain text. */
export function writeCsvMarks(marks: readonly Mark[]): string {
  const rows = marks.map((m) => [
    toSeconds(m.inMicros).toFixed(6),
    m.outMicros === null ? '' : toSeconds(m.outMicros).toFixed(6),
    m.label,
  ])
  return `${Papa.unparse([['time', 'end', 'label'], ...rows], { escapeFormulae: true, newline: '\r\n' })}\r\n`
}
