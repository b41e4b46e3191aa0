import type { CueId } from '../model/ids'
import type { Cue } from '../model/words'
import type { Micros } from '../time/micros'
import { timedTokens, type TimedToken } from './tokens'

/** Sounds that people make while they look for words, in English. */
const FILLERS: ReadonlySet<string> = new Set(['um', 'umm', 'uhm', 'uh', 'uhh', 'erm', 'hm', 'hmm', 'mhm', 'mm', 'ehm'])

/** A false start repeats so many words at most. */
const MOST_REPEATED = 3

/** Said on purpose, and twice. */
const TWICE_ON_PURPOSE: ReadonlySet<string> = new Set([
  'very',
  'no',
  'yes',
  'bye',
  'ha',
  'so',
  'really',
  'had',
  'that',
  'go',
  'far',
  'many',
  'wait',
  'come',
  'now',
])

/** A word that says nothing: characters of its caption, and when it is heard, where that is known. */
export interface Filler {
  cueId: CueId
  from: number
  to: number
  heard: { fromMicros: Micros; toMicros: Micros } | null
}

const plain = (word: string) => word.toLocaleLowerCase().replace(/[^\p{L}\p{N}'’]/gu, '')

/**
 * Fillers and false starts of captions, in order: sounds like “um”, words that are broken off (“gli– glider”), and
 * words that are begun again (“we will we will turn”), of which the first go.
 */
export function fillersIn(cues: readonly Cue[]): Filler[] {
  return cues.flatMap((cue) => {
    const tokens = timedTokens(cue)
    const words = tokens.map((t) => cue.text.slice(t.from, t.to))
    return tokens.flatMap((token, i) =>
      isFiller(words[i] ?? '', words.length > 1) || isBrokenOff(words, i) || isSaidAgain(words, i)
        ? [fillerOf(cue, token)]
        : [],
    )
  })
}

const fillerOf = (cue: Cue, { from, to, fromMicros, toMicros }: TimedToken): Filler => ({
  cueId: cue.id,
  from,
  to,
  heard: cue.words.length > 0 ? { fromMicros, toMicros } : null,
})

/** A caption that is nothing but “Mhm.” is an answer. */
const isFiller = (word: string, hasOthers: boolean) => hasOthers && FILLERS.has(plain(word))

const isBrokenOff = (words: readonly string[], i: number) =>
  i + 1 < words.length && /\p{L}[-–—]$/u.test(words[i] ?? '') && plain(words[i] ?? '').length < 8

/** Whether a word belongs to a run that is said again at once. What ends a phrase is not begun again. */
function isSaidAgain(words: readonly string[], i: number): boolean {
  for (let length = 1; length <= MOST_REPEATED; length++)
    for (let start = Math.max(0, i - length + 1); start <= i; start++) {
      const first = words.slice(start, start + length)
      const again = words.slice(start + length, start + 2 * length)
      if (again.length < length || first.some((w) => /[.!?;:]$/u.test(w))) continue
      const isSame = first.every((w, n) => plain(w) !== '' && plain(w) === plain(again[n] ?? ''))
      if (isSame && !(length === 1 && TWICE_ON_PURPOSE.has(plain(first[0] ?? '')))) return true
    }
  return false
}

/** Captions without some fillers; one that would be empty goes. */
export function withoutFillers(cues: readonly Cue[], fillers: readonly Filler[]): Cue[] {
  return cues.flatMap((cue) => {
    const own = fillers.filter((f) => f.cueId === cue.id)
    if (own.length === 0) return [cue]
    const isOwn = ({ from, to }: { from: number; to: number }) => own.some((f) => f.from === from && f.to === to)
    const kept = timedTokens(cue).filter((t) => !isOwn(t))
    if (kept.length === 0) return []
    const text = kept.reduce((all, t, n) => {
      const before = kept[n - 1]
      const gap = before ? cue.text.slice(before.to, t.from).match(/^\s*/u)?.[0] || ' ' : ''
      return all + gap + cue.text.slice(t.from, t.to)
    }, '')
    const startsLarge = /^\p{Lu}/u.test(cue.text.trimStart())
    const words = cue.words.length === 0 ? [] : kept.map((t) => wordOf(cue, t))
    return [{ ...cue, text: startsLarge ? text.charAt(0).toLocaleUpperCase() + text.slice(1) : text, words }]
  })
}

const wordOf = ({ text }: Cue, { from, to, fromMicros, toMicros }: TimedToken) => ({
  text: text.slice(from, to),
  fromMicros,
  toMicros: Math.max(fromMicros + 1, toMicros),
})
