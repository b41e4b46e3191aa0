import bidiFactory from 'bidi-js'
import type { Token } from './tokens'
import type { Measure, SetLine, SetText } from './setText'

const bidi = bidiFactory()

/** Right-to-left letters: Hebrew, Arabic and their kin. */
const RIGHT_TO_LEFT = /[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u
const STRONG = /[\p{L}]/u

/** Whether a line's first letter runs from right to left. */
export function runsRight(text: string): boolean {
  return RIGHT_TO_LEFT.test(STRONG.exec(text)?.[0] ?? '')
}

/**
 * A piece of a line that is drawn at once: characters `from`..`to` of the text, its left edge and width in px, and
 * whether it runs from right to left.
 */
export interface Piece {
  from: number
  to: number
  x: number
  width: number
  right: boolean
}

/**
 * A line in pieces: the word that is being spoken, and what is around it. `word` is empty where the word is not in
 * this line.
 */
export interface Pieces {
  word: Piece[]
  others: Piece[]
}

/**
 * Parts a line so that one word of it can be drawn by itself, wherever it stands among words that run the other way.
 */
export function pieces(set: SetText, line: SetLine, spoken: Token | null, measure: Measure): Pieces {
  const whole = { from: line.from, to: line.to, x: line.x, width: line.width, right: line.right }
  if (!spoken || spoken.from >= line.to || spoken.to <= line.from) return { word: [], others: [whole] }
  const from = Math.max(spoken.from, line.from)
  const to = Math.min(spoken.to, line.to)
  const parted = isMixed(set.text.slice(line.from, line.to))
    ? inOrderOfEyes(set, line, from, to, measure)
    : inOneDirection(set, line, from, to, measure)
  const isOfWord = (p: Piece) => p.from >= from && p.to <= to
  return { word: parted.filter(isOfWord), others: parted.filter((p) => !isOfWord(p)) }
}

/** A line of one direction in up to three pieces. */
function inOneDirection(set: SetText, line: SetLine, from: number, to: number, measure: Measure): Piece[] {
  const widthTo = (at: number) => measure(set.text.slice(line.from, at), set.face)
  const parts = [
    [line.from, from],
    [from, to],
    [to, line.to],
  ] as const
  return parts.flatMap(([a, b]): Piece[] => {
    if (b <= a) return []
    const [start, end] = [widthTo(a), widthTo(b)]
    return [
      {
        from: a,
        to: b,
        x: line.right ? line.x + line.width - end : line.x + start,
        width: end - start,
        right: line.right,
      },
    ]
  })
}

/**
 * A line that runs both ways in pieces of one direction each, from left to right as they are seen (Unicode Standard
 * Annex #9, rules L1 and L2).
 */
function inOrderOfEyes(set: SetText, line: SetLine, from: number, to: number, measure: Measure): Piece[] {
  const text = set.text.slice(line.from, line.to)
  const embedding = bidi.getEmbeddingLevels(text, line.right ? 'rtl' : 'ltr')
  const seen = bidi.getReorderedIndices(text, embedding).map((i) => i + line.from)
  const levelOf = (at: number) => embedding.levels[at - line.from] ?? 0
  const partOf = (at: number) => {
    if (at < from) return 0
    return at < to ? 1 : 2
  }
  const runs: { from: number; to: number; right: boolean }[] = []
  let before = -1
  for (const at of seen) {
    const right = levelOf(at) % 2 === 1
    const run = runs.at(-1)
    const goesOn = run && run.right === right && partOf(before) === partOf(at) && at - before === (right ? -1 : 1)
    if (goesOn) Object.assign(run, { from: Math.min(run.from, at), to: Math.max(run.to, at + 1) })
    else runs.push({ from: at, to: at + 1, right })
    before = at
  }
  let x = line.x
  return runs.map((run): Piece => {
    const width = measure(set.text.slice(run.from, run.to), set.face)
    x += width
    return { ...run, x: x - width, width }
  })
}

/** Whether letters of a line run both ways: its words do not stand in the order in which they are written. */
function isMixed(text: string): boolean {
  const letters = [...text].filter((c) => STRONG.test(c))
  return new Set(letters.map((c) => RIGHT_TO_LEFT.test(c))).size > 1
}
