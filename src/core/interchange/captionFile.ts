import { parseText, parseVTTTimestamp, tokenizeVTTCue, type VTTCue, type VTTNode } from 'media-captions'
import { MAX_CUES, MAX_CUE_LENGTH, type SpokenWord } from '../model/words'
import type { Micros } from '../time/micros'
import { decodeText } from './decodeText'

/** A caption as it was read: times of the file's own clock, `words` where it tells when each is said. */
export interface ReadCue {
  fromMicros: Micros
  toMicros: Micros
  text: string
  words: SpokenWord[]
  voice: string | null
}

/** What could not be read as it stands, by line (from 1; 0 for the whole file). Data; the interface words it. */
export interface CaptionProblem {
  line: number
  reason: 'bad-time' | 'ends-before-start' | 'out-of-order' | 'overlaps' | 'too-long'
}

export type CaptionsRead =
  | { ok: true; cues: ReadCue[]; problems: CaptionProblem[] }
  | { ok: false; reason: 'too-large' | 'too-many' | 'not-captions'; problems: CaptionProblem[] }

/** A day of talking is a tenth of this. */
export const MAX_CAPTION_BYTES = 12_000_000

const MAX_PROBLEMS = 200
/** Of a caption with its marks so many characters are read: every word may have a time and a colour of its own. */
const MAX_CUE_MARKUP = 10 * MAX_CUE_LENGTH

/**
 * Reads WebVTT or SubRip, told apart by their first line. Cues that cannot be used are left out and reported by line;
 * the rest come in order of time.
 */
export async function readCaptions(bytes: Uint8Array): Promise<CaptionsRead> {
  if (bytes.length > MAX_CAPTION_BYTES) return { ok: false, reason: 'too-large', problems: [] }
  const text = decodeText(bytes).replace(/^\uFEFF/, '')
  const isVtt = /^WEBVTT(?:[ \t\r\n]|$)/.test(text)
  // Counted before anything is made of them.
  if (timedLines(text, MAX_CUES + 1) > MAX_CUES) return { ok: false, reason: 'too-many', problems: [] }
  const lines = text.split(/\r\n|\n|\r/)
  const timings = lines.flatMap((line, i) => (line.includes('-->') ? [{ line: i + 1, text: line }] : []))
  if (timings.length === 0) return { ok: false, reason: 'not-captions', problems: [] }
  const parsed = await parseText(lines.join('\n'), { type: isVtt ? 'vtt' : 'srt', strict: false, errors: false })
  const problems = [...timeProblems(timings), ...(isVtt ? [] : lostTimes(lines))]
  const found = parsed.cues.flatMap((cue) => readCue(cue) ?? []).sort((a, b) => a.fromMicros - b.fromMicros)
  if (found.some((c) => c.text.length > MAX_CUE_LENGTH)) problems.push({ line: 0, reason: 'too-long' })
  const cues = found.map((c) => ({ ...c, text: c.text.slice(0, MAX_CUE_LENGTH).trim() }))
  problems.sort((a, b) => a.line - b.line)
  return cues.length === 0
    ? { ok: false, reason: 'not-captions', problems: problems.slice(0, MAX_PROBLEMS) }
    : { ok: true, cues, problems: problems.slice(0, MAX_PROBLEMS) }
}

/** How many lines have an arrow, counted up to `most`. */
function timedLines(text: string, most: number): number {
  const arrow = /-->[^\r\n]*/g
  let found = 0
  while (found < most && arrow.test(text)) found++
  return found
}

const micros = (seconds: number): Micros => Math.round(seconds * 1e6)

/** What is wrong with the times of cues, as they stand in the file. */
function timeProblems(timings: readonly { line: number; text: string }[]): CaptionProblem[] {
  const problems: CaptionProblem[] = []
  let last = { from: -1, to: -1 }
  for (const { line, text } of timings) {
    const [start = '', rest = ''] = text.split('-->')
    const from = parseVTTTimestamp(start.trim().replace(',', '.'))
    const to = parseVTTTimestamp((rest.trim().split(/\s/)[0] ?? '').replace(',', '.'))
    if (from === null || to === null) problems.push({ line, reason: 'bad-time' })
    else if (to <= from) problems.push({ line, reason: 'ends-before-start' })
    else {
      if (from < last.from) problems.push({ line, reason: 'out-of-order' })
      else if (from < last.to) problems.push({ line, reason: 'overlaps' })
      last = { from, to }
    }
  }
  return problems
}

/** Lines of SubRip that were meant as times and are not. */
function lostTimes(lines: readonly string[]): CaptionProblem[] {
  return lines.flatMap((line, i) =>
    !line.includes('-->') && /\d:\d\d[,.:]\d+\s*-{0,2}>\s*\d/.test(line)
      ? [{ line: i + 1, reason: 'bad-time' as const }]
      : [],
  )
}

function readCue(cue: VTTCue): ReadCue | null {
  const fromMicros = micros(cue.startTime)
  const toMicros = micros(cue.endTime)
  if (!Number.isSafeInteger(fromMicros) || !Number.isSafeInteger(toMicros) || fromMicros < 0 || toMicros <= fromMicros)
    return null
  const read: { text: string; voice: string | null; marks: { at: number; micros: Micros }[] } = {
    text: '',
    voice: null,
    marks: [{ at: 0, micros: fromMicros }],
  }
  cue.text = cue.text.slice(0, MAX_CUE_MARKUP)
  // Marks can stand in one another deeper than calls can.
  const nodes: VTTNode[] = tokenizeVTTCue(cue).reverse()
  for (let node = nodes.pop(); node; node = nodes.pop()) {
    if (node.type === 'text') {
      read.text += node.data
      continue
    }
    if (node.type === 'v') read.voice ??= (node.voice ?? '').trim().slice(0, 100) || null
    if (node.type === 'timestamp') read.marks.push({ at: read.text.length, micros: micros(node.time) })
    for (let n = node.children.length - 1; n >= 0; n--) nodes.push(node.children[n] as VTTNode)
  }
  const { text } = read
  if (text.trim() === '') return null
  return {
    fromMicros,
    toMicros,
    text: text.trim(),
    voice: read.voice,
    words: read.marks.length > 1 ? wordsFrom(text, read.marks, toMicros) : [],
  }
}

/** Words between the marks of time inside a cue; those between two marks share the time between them. */
function wordsFrom(text: string, marks: readonly { at: number; micros: Micros }[], end: Micros): SpokenWord[] {
  return marks.flatMap(({ at, micros: from }, i) => {
    const next = marks[i + 1]
    const words = text.slice(at, next?.at).match(/\S+/g) ?? []
    const length = Math.max(words.length, (next?.micros ?? end) - from)
    return words.map((word, n): SpokenWord => ({
      text: word.slice(0, 200),
      fromMicros: from + Math.floor((n * length) / words.length),
      toMicros: from + Math.floor(((n + 1) * length) / words.length),
    }))
  })
}
