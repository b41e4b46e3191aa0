import { MAX_CUE_LENGTH, type Cue, type SpokenWord } from '../model/words'

/** A line goes on over pauses shorter than this. */
const LONGEST_PAUSE = 700_000

/** Characters; two lines of a caption at the usual size. */
const LONGEST_LINE = 84

const ENDS_SENTENCE = /[.!?…。！？]["'”’»)]*$/u

/** A word as a recogniser writes it: with the space before it, where the language puts one there. */
export type HeardWord = SpokenWord

/**
 * Words that were heard one after another, gathered into lines: up to the end of a sentence, a pause, or as much as
 * can be read at a time.
 */
export function linesOfWords(words: readonly HeardWord[]): Pick<Cue, 'fromMicros' | 'toMicros' | 'text' | 'words'>[] {
  const lines: HeardWord[][] = []
  for (const word of words) {
    if (word.text.trim() === '') continue
    const line = lines.at(-1)
    const last = line?.at(-1)
    const goesOn =
      line &&
      last &&
      !ENDS_SENTENCE.test(last.text) &&
      word.fromMicros - last.toMicros < LONGEST_PAUSE &&
      textOf([...line, word]).length <= LONGEST_LINE
    if (goesOn) line.push(word)
    else lines.push([word])
  }
  return lines.map((line) => {
    const fromMicros = line[0]?.fromMicros ?? 0
    return {
      fromMicros,
      toMicros: Math.max(fromMicros + 1, line.at(-1)?.toMicros ?? 0),
      text: textOf(line),
      words: line.map((w) => ({ ...w, text: w.text.trim() })),
    }
  })
}

const textOf = (line: readonly HeardWord[]) =>
  line
    .map((w) => w.text)
    .join('')
    .trim()
    .slice(0, MAX_CUE_LENGTH)
