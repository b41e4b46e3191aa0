import { MAX_CUE_LENGTH, type Cue, type SpokenWord } from '../model/words'
import type { Micros } from '../time/micros'

/** Nobody reads a line over a longer pause. */
const LONGEST_PAUSE: Micros = 700_000

/** Two lines of 42 characters. */
const MOST_CHARACTERS = 84

/** A line stays on the picture no shorter and no longer than this. */
const SHORTEST: Micros = 800_000
const LONGEST: Micros = 7_000_000

/** Between two lines lies this much or nothing: a shorter gap flickers. */
const SHORTEST_GAP: Micros = 400_000

const ENDS_SENTENCE = /[.!?…。！？]["'”’»)]*$/u
const ENDS_PHRASE = /[,;:–—、，]["'”’»)]*$/u

/** What the end of a phrase, and a pause of a quarter of a second, are worth against the middle of a line. */
const PHRASE_WORTH = 0.3
const PAUSE_WORTH = 0.3
const FULL_PAUSE: Micros = 250_000

/** A word as a recogniser writes it: with the space before it, where the language puts one there. */
export type HeardWord = SpokenWord

type Line = readonly HeardWord[]

/**
 * Words that were heard one after another, as lines to be read: they end with sentences and at pauses; long ones are
 * parted after phrases; what would be gone before it is read stays longer, or goes with the next.
 */
export function linesOfWords(words: readonly HeardWord[]): Pick<Cue, 'fromMicros' | 'toMicros' | 'text' | 'words'>[] {
  const lines = shortJoined(sentencesIn(words.filter((w) => w.text.trim() !== '')).flatMap(parted))
  return lines.map((line, i) => {
    const fromMicros = startOf(line)
    return {
      fromMicros,
      toMicros: shownUntil(line, lines[i + 1]),
      text: textOf(line),
      words: line.map((w) => ({ ...w, text: w.text.trim() })),
    }
  })
}

function sentencesIn(words: readonly HeardWord[]): Line[] {
  const lines: HeardWord[][] = []
  for (const word of words) {
    const line = lines.at(-1)
    const last = line?.at(-1)
    if (line && last && !ENDS_SENTENCE.test(last.text) && word.fromMicros - last.toMicros < LONGEST_PAUSE)
      line.push(word)
    else lines.push([word])
  }
  return lines
}

const fits = (line: Line) => textOf(line).length <= MOST_CHARACTERS && endOf(line) - startOf(line) <= LONGEST

/** A line in parts that can be read at a time, each about as long as the others. */
function parted(line: Line): Line[] {
  if (line.length < 2 || fits(line)) return [line]
  const length = textOf(line).length
  const costAt = (at: number) => {
    const [before, after] = [line[at - 1], line[at]]
    if (!before || !after) return Infinity
    const offMiddle = Math.abs(textOf(line.slice(0, at)).length / length - 0.5)
    const pause = Math.min(1, Math.max(0, after.fromMicros - before.toMicros) / FULL_PAUSE)
    return offMiddle - (ENDS_PHRASE.test(before.text) ? PHRASE_WORTH : 0) - PAUSE_WORTH * pause
  }
  const places = Array.from({ length: line.length - 1 }, (_, i) => i + 1)
  const best = places.reduce((a, b) => (costAt(b) < costAt(a) ? b : a))
  return [...parted(line.slice(0, best)), ...parted(line.slice(best))]
}

/** Lines that are over too soon go with the next, or with the one before, where there is no pause and it fits. */
function shortJoined(lines: readonly Line[]): Line[] {
  const joined: Line[] = []
  for (const line of lines) {
    const before = joined.at(-1)
    const both = before && [...before, ...line]
    const isNear = before !== undefined && startOf(line) - endOf(before) < SHORTEST_GAP
    if (both && isNear && fits(both) && (isTooShort(before, line) || isTooShort(line))) joined[joined.length - 1] = both
    else joined.push(line)
  }
  return joined
}

const isTooShort = (line: Line, next?: Line) =>
  Math.max(endOf(line), next ? startOf(next) : 0) - startOf(line) < SHORTEST

/** Until the next line where that is near; long enough to be read where there is room. */
function shownUntil(line: Line, next: Line | undefined): Micros {
  const [from, to] = [startOf(line), Math.max(startOf(line) + 1, endOf(line))]
  const room = next ? Math.max(to, startOf(next)) : Infinity
  const wanted = Math.max(to, from + SHORTEST)
  return room - wanted < SHORTEST_GAP ? room : wanted
}

const startOf = (line: Line): Micros => line[0]?.fromMicros ?? 0
const endOf = (line: Line): Micros => line.at(-1)?.toMicros ?? 0

const textOf = (line: Line) =>
  line
    .map((w) => w.text)
    .join('')
    .trim()
    .slice(0, MAX_CUE_LENGTH)
