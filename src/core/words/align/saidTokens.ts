import { tokensOf, type Token } from '../tokens'
import { ordinalInWords, numberInWords, yearInWords } from './numberWords'

/** A written word with the words that are said for it, in small letters; empty where nothing is said. */
export interface SaidToken extends Token {
  said: string[]
}

/** What is said for signs, where they stand alone or beside a number. */
const SIGNS: Readonly<Record<string, string>> = {
  '&': 'and',
  '+': 'plus',
  '=': 'equals',
  '@': 'at',
  '#': 'number',
  '%': 'percent',
}
const CURRENCIES: Readonly<Record<string, [one: string, more: string]>> = {
  $: ['dollar', 'dollars'],
  '€': ['euro', 'euros'],
  '£': ['pound', 'pounds'],
}
const ABBREVIATIONS: Readonly<Record<string, string>> = {
  'mr.': 'mister',
  'mrs.': 'missus',
  'dr.': 'doctor',
  'prof.': 'professor',
  'st.': 'saint',
  'no.': 'number',
  'vs.': 'versus',
  vs: 'versus',
  'etc.': 'et cetera',
  'e.g.': 'for example',
  'i.e.': 'that is',
  'approx.': 'approximately',
  ok: 'okay',
  km: 'kilometers',
  kg: 'kilograms',
  cm: 'centimeters',
  mm: 'millimeters',
  mph: 'miles per hour',
}

/** The words of an English text, each with what is said for it: numbers, signs and abbreviations in full. */
export function saidTokens(text: string): SaidToken[] {
  return tokensOf(text).map((token) => ({ ...token, said: saidFor(text.slice(token.from, token.to)) }))
}

function saidFor(written: string): string[] {
  const word = written.normalize('NFKD').replace(/\p{M}/gu, '').replace(/[’‘`]/gu, "'")
  const abbreviation = ABBREVIATIONS[word.toLowerCase().replace(/[,;:!?)]+$/u, '')]
  if (abbreviation) return abbreviation.split(' ')
  // Several capitals are spelled; the dictionary may know better, which whoever looks it up says.
  return [...partsOf(word)].flatMap((part) => (/\d/.test(part) ? numberSaid(part) : wordsIn(part)))
}

/** Numbers with what belongs to them, and what stands between. */
function* partsOf(word: string): Generator<string> {
  const number = /[$€£#]?\d+(?:,\d{3})*(?:[.:]\d+)*(?:st|nd|rd|th|s|%)?(?![\p{L}])|\d+/giu
  let at = 0
  for (const { 0: found, index } of word.matchAll(number)) {
    yield word.slice(at, index)
    yield found
    at = index + found.length
  }
  yield word.slice(at)
}

const words = (text: string) => text.split(/[\s-]+/).filter(Boolean)

function wordsIn(part: string): string[] {
  const spelled = part.replace(/[&+=@#%$€£]/gu, (sign) => ` ${SIGNS[sign] ?? CURRENCIES[sign]?.[1] ?? ''} `)
  return spelled
    .toLowerCase()
    .split(/[^a-z']+/)
    .map((w) => w.replace(/^'+(?!(?:s|re|ve|ll|d|m|em|cause|til)\b)|'+$/g, ''))
    .filter((w) => /[a-z]/.test(w))
}

function numberSaid(part: string): string[] {
  const currency = CURRENCIES[part[0] ?? '']
  const ordinal = /(?:st|nd|rd|th)$/i.test(part)
  const digits = part.replace(/[^\d.:]/g, '').replace(/[.:]+$/, '')
  const tail = part.endsWith('%') ? ['percent'] : []
  const head = part.startsWith('#') ? ['number'] : []
  if (digits.includes(':')) return digits.split(':').flatMap((n) => words(numberInWords(Number(n))))
  const [whole = '0', ...decimals] = digits.split('.')
  const value = Number(whole)
  if (ordinal) return words(ordinalInWords(value))
  if (decimals.length > 0) {
    const said = [
      ...words(numberInWords(value)),
      'point',
      ...[...decimals.join('')].flatMap((d) => words(numberInWords(Number(d)))),
    ]
    return [...head, ...said, ...(currency ? [currency[1]] : tail)]
  }
  if (currency) return [...words(numberInWords(value)), value === 1 ? currency[0] : currency[1]]
  const isYear = /^\d{4}s?$/i.test(part) && value >= 1100 && value < 2100
  const said = words(isYear ? yearInWords(value) : numberInWords(value))
  return [...head, ...(/s$/i.test(part) ? plural(said) : said), ...tail]
}

/** A number with an s behind it: nineties, tens. */
function plural(said: readonly string[]): string[] {
  const last = said.at(-1) ?? ''
  return [...said.slice(0, -1), last.endsWith('y') ? `${last.slice(0, -1)}ies` : `${last}s`]
}
