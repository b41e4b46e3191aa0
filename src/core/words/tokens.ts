import type { Cue, SpokenWord } from '../model/words'
import type { Micros } from '../time/micros'

/** A word of a text: characters `from`..`to`, end-exclusive. */
export interface Token {
  from: number
  to: number
}

export interface TimedToken extends Token {
  fromMicros: Micros
  toMicros: Micros
}

/** Scripts that are written without spaces between words; there each character counts as a word. */
const UNSPACED = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}]/u

/** The words of a text, with the punctuation that clings to them. */
export function tokensOf(text: string): Token[] {
  const tokens: Token[] = []
  for (const { index, 0: piece } of text.matchAll(/\S+/gu)) {
    if (!UNSPACED.test(piece)) {
      tokens.push({ from: index, to: index + piece.length })
      continue
    }
    for (const { segment, index: at } of new Intl.Segmenter(undefined, { granularity: 'word' }).segment(piece)) {
      const last = tokens.at(-1)
      // Punctuation stays with what it follows.
      if (last && at > 0 && !/[\p{L}\p{N}]/u.test(segment)) last.to += segment.length
      else tokens.push({ from: index + at, to: index + at + segment.length })
    }
  }
  return tokens
}

const lettersIn = (text: string) => Math.max(1, [...text.matchAll(/[\p{L}\p{N}]/gu)].length)

/** Shares a stretch of time out to words by how long they are. */
export function spread(text: string, tokens: readonly Token[], fromMicros: Micros, toMicros: Micros): TimedToken[] {
  const weights = tokens.map(({ from, to }) => lettersIn(text.slice(from, to)) + 1)
  const all = weights.reduce((a, b) => a + b, 0)
  let passed = 0
  return tokens.map((token, i) => {
    const start = fromMicros + Math.round(((toMicros - fromMicros) * passed) / all)
    passed += weights[i] ?? 0
    return { ...token, fromMicros: start, toMicros: fromMicros + Math.round(((toMicros - fromMicros) * passed) / all) }
  })
}

const plain = (word: string) => word.toLocaleLowerCase().replace(/[^\p{L}\p{N}]/gu, '')

/**
 * The words of a cue with the times at which they are spoken. Words that were timed keep their times, also after the
 * text was corrected; those between share out what lies between.
 */
export function timedTokens({
  text,
  words,
  fromMicros,
  toMicros,
}: Pick<Cue, 'text' | 'words' | 'fromMicros' | 'toMicros'>): TimedToken[] {
  const tokens = tokensOf(text)
  if (words.length === 0) return spread(text, tokens, fromMicros, toMicros)
  const known =
    words.length === tokens.length
      ? words
      : alike(
          tokens.map((t) => text.slice(t.from, t.to)),
          words,
        )
  const timed: TimedToken[] = []
  for (let i = 0; i < tokens.length;) {
    const word = known[i]
    const token = tokens[i] as Token
    if (word) {
      timed.push({ ...token, fromMicros: word.fromMicros, toMicros: word.toMicros })
      i++
      continue
    }
    let end = i
    while (end < tokens.length && !known[end]) end++
    const start = timed.at(-1)?.toMicros ?? fromMicros
    timed.push(...spread(text, tokens.slice(i, end), start, Math.max(start, known[end]?.fromMicros ?? toMicros)))
    i = end
  }
  return timed
}

/**
 * For each word of a new text the timed word that it is, by the longest run of words in common; undefined for a new
 * one.
 */
function alike(texts: readonly string[], words: readonly SpokenWord[]): (SpokenWord | undefined)[] {
  const [a, b] = [texts.map(plain), words.map((w) => plain(w.text))]
  const longest = Array.from({ length: a.length + 1 }, () => new Array<number>(b.length + 1).fill(0))
  const at = (i: number, j: number) => longest[i]?.[j] ?? 0
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--)
      (longest[i] as number[])[j] = a[i] === b[j] ? at(i + 1, j + 1) + 1 : Math.max(at(i + 1, j), at(i, j + 1))
  const spoken: (SpokenWord | undefined)[] = []
  for (let i = 0, j = 0; i < a.length;) {
    if (j < b.length && a[i] === b[j]) {
      spoken.push(words[j++])
      i++
    } else if (j < b.length && at(i, j + 1) >= at(i + 1, j)) j++
    else {
      spoken.push(undefined)
      i++
    }
  }
  return spoken
}
