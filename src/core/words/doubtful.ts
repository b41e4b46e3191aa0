import type { Cue } from '../model/words'
import { MICROS_PER_SECOND } from '../time/micros'
import { tokensOf, type Token } from './tokens'

/**
 * Why a place in a caption should be looked at. *alike*: the word differs by one letter from one that is said often.
 * *unsure*: whoever wrote it down was not sure of it.
 */
export type Doubt =
  | { why: 'twice'; token: Token }
  | { why: 'alike'; token: Token; usual: string }
  | { why: 'garbled'; token: Token }
  | { why: 'unsure'; token: Token }
  | { why: 'empty' }
  | { why: 'fast'; perSecond: number }

/** A doubt and the cue that it is about. */
export interface Doubtful {
  cue: Cue
  doubt: Doubt
}

/** Nobody reads more characters a second. */
const MAX_PER_SECOND = 25
/** A word is known in a recording when it is said so often. */
const OFTEN = 3
/** Shorter words differ by a letter without being the same. */
const MIN_LETTERS = 5

/** Signs of an encoding gone wrong, or letters and figures run together. */
const GARBLED = /\uFFFD|Ã.|â€|\p{L}\p{N}+\p{L}|\p{Ll}\p{Lu}{2,}|(\p{L})\1{3,}/u

const plain = (word: string) => word.toLocaleLowerCase().replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '')

/** Places that are likely to be wrong, in the order of the cues. */
export function doubtfulPlaces(cues: readonly Cue[]): Doubtful[] {
  const said = new Map<string, number>()
  for (const { text } of cues)
    for (const { from, to } of tokensOf(text))
      said.set(plain(text.slice(from, to)), (said.get(plain(text.slice(from, to))) ?? 0) + 1)
  const frequent = [...said]
    .filter(([word, times]) => times >= OFTEN && word.length >= MIN_LETTERS)
    .map(([word]) => word)
  return cues.flatMap((cue) => doubtsOf(cue, said, frequent).map((doubt) => ({ cue, doubt })))
}

function doubtsOf(
  { text, words: spoken, fromMicros, toMicros }: Cue,
  said: ReadonlyMap<string, number>,
  known: readonly string[],
): Doubt[] {
  if (text.trim() === '') return [{ why: 'empty' }]
  const tokens = tokensOf(text)
  const words = tokens.map((t) => plain(text.slice(t.from, t.to)))
  const doubts = tokens.flatMap((token, i): Doubt[] => {
    const word = words[i] ?? ''
    if (GARBLED.test(text.slice(token.from, token.to))) return [{ why: 'garbled', token }]
    if (word !== '' && word === words[i - 1] && /^[^\p{P}]*$/u.test(text.slice(tokens[i - 1]?.from, token.from)))
      return [{ why: 'twice', token }]
    if (isUnsure(spoken, i, tokens.length, word)) return [{ why: 'unsure', token }]
    const usual =
      word.length >= MIN_LETTERS && (said.get(word) ?? 0) < OFTEN
        ? known.find((k) => isOneLetterOff(word, k))
        : undefined
    return usual === undefined ? [] : [{ why: 'alike', token, usual }]
  })
  const perSecond = [...text].length / ((toMicros - fromMicros) / MICROS_PER_SECOND)
  return perSecond > MAX_PER_SECOND ? [...doubts, { why: 'fast', perSecond }] : doubts
}

/** A recogniser that is less sure than this of a word is often wrong. */
const MIN_CONFIDENCE = 0.25

/** Whether word `i` is as it was heard, and was not heard well; what was corrected is sure. */
function isUnsure(spoken: Cue['words'], i: number, count: number, word: string): boolean {
  const heard = spoken.length === count ? spoken[i] : undefined
  return heard?.confidence !== undefined && heard.confidence < MIN_CONFIDENCE && plain(heard.text) === word
}

/**
 * Whether one letter added, left out or exchanged turns one word into another; endings of grammar (a last letter
 * more) are no slip.
 */
function isOneLetterOff(a: string, b: string): boolean {
  if (a === b || Math.abs(a.length - b.length) > 1) return false
  let start = 0
  while (start < Math.min(a.length, b.length) && a[start] === b[start]) start++
  let end = 0
  while (end < Math.min(a.length, b.length) - start && a[a.length - 1 - end] === b[b.length - 1 - end]) end++
  const [restA, restB] = [a.length - start - end, b.length - start - end]
  if (restA > 1 || restB > 1) return false
  return !(end === 0 && a.length !== b.length)
}
