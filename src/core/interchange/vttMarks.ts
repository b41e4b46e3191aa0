import type { Micros } from '../time/micros'
import { escapeVtt, formatVttTime } from './vttText'
import { MarkCollector, tooLarge, type Mark, type MarksRead } from './mark'

const TIME = /^(?:(\d{2,}):)?([0-5]\d):([0-5]\d)\.(\d{3})$/

function parseVttTime(text: string): Micros | null {
  const match = TIME.exec(text)
  if (!match) return null
  const [, h = '0', m = '', s = '', ms = ''] = match
  return ((Number(h) * 3600 + Number(m) * 60 + Number(s)) * 1000 + Number(ms)) * 1000
}

/** Marks from WebVTT chapters (W3C WebVTT, section 4.1): a cue a mark, its text the label. */
export function readVttMarks(text: string, durationMicros: Micros): MarksRead {
  const refused = tooLarge(text)
  if (refused) return refused
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/)
  const marks = new MarkCollector(durationMicros)
  if (!/^WEBVTT(?:[ \t]|$)/.test(lines[0] ?? '')) {
    marks.problem(1, 'not-this-format', lines[0] ?? '')
    return marks.result()
  }
  for (let i = 1; i < lines.length; i++) {
    const line = lines[i] ?? ''
    if (/^(NOTE|STYLE|REGION)(?:[ \t]|$)/.test(line)) i = endOfBlock(lines, i)
    else if (line.includes('-->')) {
      const last = endOfBlock(lines, i)
      addCue(marks, line, i + 1, lines.slice(i + 1, last))
      i = last
    }
  }
  return marks.result()
}

/** Index of the blank line that ends the block which `from` is in, or of the end. */
function endOfBlock(lines: readonly string[], from: number): number {
  let end = from + 1
  while (end < lines.length && lines[end]?.trim() !== '') end++
  return end
}

function addCue(marks: MarkCollector, timing: string, line: number, payload: readonly string[]): void {
  const [start = '', rest = ''] = timing.split('-->')
  const inMicros = parseVttTime(start.trim())
  const outMicros = parseVttTime(rest.trim().split(/[ \t]/)[0] ?? '')
  if (inMicros === null || outMicros === null) return marks.problem(line, 'bad-time', timing)
  marks.add(line, { inMicros, outMicros, label: plainText(payload.join(' ')) }, timing)
}

/** A cue's text without its tags, its escapes resolved. */
function plainText(text: string): string {
  const names: Record<string, string> = { amp: '&', lt: '<', gt: '>', nbsp: ' ', lrm: '', rlm: '' }
  return text.replace(/<[^<>]*>/g, '').replace(/&(amp|lt|gt|nbsp|lrm|rlm);/g, (_, name: string) => names[name] ?? '')
}

/** Marks as WebVTT chapters. A mark without an end lasts until the next one, or a second. */
export function writeVttMarks(marks: readonly Mark[]): string {
  const cues = marks.map((m, i) => {
    const next = marks[i + 1]?.inMicros ?? 0
    const end = m.outMicros ?? Math.max(next, m.inMicros + 1_000_000)
    return `${formatVttTime(m.inMicros)} --> ${formatVttTime(end)}\n${escapeVtt(m.label || `Mark ${i + 1}`)}\n`
  })
  return ['WEBVTT\n', ...cues].join('\n')
}
