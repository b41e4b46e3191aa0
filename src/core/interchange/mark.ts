import type { Micros } from '../time/micros'

/** A moment somebody marked, in recording time; `outMicros` is null where only one time is known. */
export interface Mark {
  inMicros: Micros
  outMicros: Micros | null
  label: string
}

/** What could not be read, by line (from 1; 0 for the whole file). Data; the interface words it. */
export interface MarkProblem {
  line: number
  reason:
    'too-large' | 'no-time' | 'bad-time' | 'ends-before-start' | 'beyond-recording' | 'not-this-format' | 'too-many'
  /** The text in question, shortened. */
  text: string
}

export interface MarksRead {
  marks: Mark[]
  problems: MarkProblem[]
}

/** Limits that no honest file reaches. */
export const MAX_CHARACTERS = 5_000_000
export const MAX_MARKS = 2000
const MAX_PROBLEMS = 200
const MAX_LABEL = 200

export function cleanLabel(text: string): string {
  return text.replace(/\s+/g, ' ').trim().slice(0, MAX_LABEL)
}

export const shortened = (text: string) => (text.length > 80 ? `${text.slice(0, 79)}…` : text)

/** Gathers marks, holding each to the recording's length and all of them to the limits. */
export class MarkCollector {
  private readonly read: MarksRead = { marks: [], problems: [] }

  constructor(private readonly durationMicros: Micros) {}

  problem(line: number, reason: MarkProblem['reason'], text: string): void {
    if (this.read.problems.length < MAX_PROBLEMS) this.read.problems.push({ line, reason, text: shortened(text) })
  }

  add(line: number, mark: Mark, text: string): void {
    if (mark.outMicros !== null && mark.outMicros <= mark.inMicros) return this.problem(line, 'ends-before-start', text)
    if (mark.inMicros >= this.durationMicros) return this.problem(line, 'beyond-recording', text)
    if (this.read.marks.length >= MAX_MARKS) return this.problem(line, 'too-many', text)
    this.read.marks.push({
      ...mark,
      outMicros: mark.outMicros && Math.min(mark.outMicros, this.durationMicros),
      label: cleanLabel(mark.label),
    })
  }

  result(): MarksRead {
    return { marks: this.read.marks.sort((a, b) => a.inMicros - b.inMicros), problems: this.read.problems }
  }
}

/** Null when `text` may be read; else the one answer to a file that is far too large. */
export function tooLarge(text: string): MarksRead | null {
  return text.length > MAX_CHARACTERS ? { marks: [], problems: [{ line: 0, reason: 'too-large', text: '' }] } : null
}
