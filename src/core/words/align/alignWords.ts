import type { SpeechStretch } from '../../sound/ducking'
import { MICROS_PER_SECOND, type Micros } from '../../time/micros'

/** When a word is said, recording time. */
export interface AlignedWord {
  fromMicros: Micros
  toMicros: Micros
}

/**
 * Hears when words are said, in their order, between two times: a time for each of the first of them, as many as are
 * said there. Null where none can be made out.
 */
export type Hear = (fromMicros: Micros, toMicros: Micros, words: readonly string[]) => Promise<AlignedWord[] | null>

/** A stretch that is heard at one time ends in the first pause after so long; before that where it would be longer. */
const USUAL_MICROS = 24_000_000
const MAX_MICROS = 45_000_000
/** Sound beside speech that is heard with it. */
const BESIDE_MICROS = 200_000
/** Nobody says more words a second for long. */
const MAX_WORDS_A_SECOND = 5.5
/** Words are sure up to the last pause so long within this share of a stretch: those after may be others’ beginning. */
const SURE_SHARE = 0.85
const PAUSE_MICROS = 150_000

/**
 * Lines words up with sound, a stretch at a time: each begins where the last sure word of the one before ended. A
 * word is null where what is said there could not be made out. `speech`: where somebody is heard speaking, in order.
 */
export async function alignWords(
  words: readonly string[],
  speech: readonly SpeechStretch[],
  hear: Hear,
  onShare: (share: number) => void = () => {},
): Promise<(AlignedWord | null)[]> {
  const aligned: (AlignedWord | null)[] = []
  const end = speech.at(-1)?.toMicros ?? 0
  const begin = (speech[0]?.fromMicros ?? 0) - BESIDE_MICROS
  for (let from = begin; aligned.length < words.length && from < end;) {
    onShare((from - begin) / (end - begin))
    const to = stretchEnd(speech, from)
    const most = Math.ceil((spokenBetween(speech, from, to) / MICROS_PER_SECOND) * MAX_WORDS_A_SECOND) + 5
    const [start, stop] = [Math.max(0, from), to + BESIDE_MICROS]
    const heard = await hear(start, stop, words.slice(aligned.length, aligned.length + most))
    // Where nothing of it is heard somebody says something else.
    const isWhole = to >= end || aligned.length + (heard?.length ?? 0) >= words.length
    const sure = heard && (isWhole ? heard.length : sureOf(heard, start + SURE_SHARE * (stop - start)))
    const taken = heard?.slice(0, sure ?? 0) ?? []
    aligned.push(...taken)
    from = isWhole ? end : Math.max(from + 1, taken.at(-1)?.toMicros ?? to)
  }
  while (aligned.length < words.length) aligned.push(null)
  return aligned.map((word, i) => word && withoutPause(word, words[i] ?? '', speech))
}

/** No word is drawn out for longer: so much, and so much for each letter. */
const MAX_WORD_MICROS = 250_000
const MAX_LETTER_MICROS = 90_000

/**
 * A word that lasts longer than it can has swallowed what comes before it, a pause or other sound: it begins where
 * speech begins within it, else as late as it can.
 */
function withoutPause(word: AlignedWord, text: string, speech: readonly SpeechStretch[]): AlignedWord {
  const latest = word.toMicros - MAX_WORD_MICROS - MAX_LETTER_MICROS * text.length
  if (word.fromMicros >= latest) return word
  const begins = speech.map((s) => s.fromMicros).findLast((t) => t > latest && t < word.toMicros - MAX_LETTER_MICROS)
  return { ...word, fromMicros: begins ?? latest }
}

function stretchEnd(speech: readonly SpeechStretch[], from: Micros): Micros {
  const last = speech.at(-1)?.toMicros ?? from
  // What would be left over is too little to be told by itself.
  if (last - from <= MAX_MICROS) return last
  const usual = speech.find((s) => s.toMicros >= from + USUAL_MICROS)?.toMicros ?? last
  return Math.min(usual, from + MAX_MICROS)
}

function spokenBetween(speech: readonly SpeechStretch[], from: Micros, to: Micros): number {
  return speech.reduce((sum, s) => sum + Math.max(0, Math.min(to, s.toMicros) - Math.max(from, s.fromMicros)), 0)
}

/** How many of the words that were heard are sure: up to the last pause before `until`, else up to there. */
function sureOf(heard: readonly AlignedWord[], until: Micros): number {
  const before = heard.filter((w) => w.toMicros <= until).length
  for (let n = before; n > before / 2; n--) {
    const [a, b] = [heard[n - 1], heard[n]]
    if (a && b && b.fromMicros - a.toMicros >= PAUSE_MICROS) return n
  }
  return Math.max(1, before)
}
