import type { AlignedWord } from './alignWords'
import { soundsOf } from './letterToSound'

/** What is needed of a decoder that knows a language's sounds; `soundswallower` is one. */
export interface WordDecoder {
  lookup_word(word: string): string | null
  add_words(...words: [word: string, sounds: string][]): void
  set_config(key: 'fsg', address: string): boolean
  /** Takes the grammar at the address that `fsg` is set to. */
  init_grammar(): Promise<void>
  start(): void
  process_audio(pcm: Float32Array, noSearch: boolean, fullUtterance: boolean): number
  stop(): void
  get_alignment(): DecodedWord
}

/** A word as the decoder found it: seconds from the start of its sound; `w`: the words in it. */
export interface DecodedWord {
  t: string
  b: number
  d: number
  w?: DecodedWord[]
}

/** Samples a second of the sound that decoders hear. */
export const HEARD_RATE = 16_000

/** What the decoder puts where nobody speaks. */
const FILLERS: ReadonlySet<string> = new Set(['<sil>', '<s>', '</s>', '[NOISE]', '[SPEECH]', '(NULL)'])

/** Gives a text an address from which it can be read while `read` goes on. */
export type Place = (text: string, read: (address: string) => Promise<void>) => Promise<void>

/** Times of the first of `words` that are said in `pcm`, which begins at `fromMicros`; see `Hear` in alignWords. */
export async function hearWords(
  decoder: WordDecoder,
  place: Place,
  pcm: Float32Array,
  fromMicros: number,
  words: readonly string[],
): Promise<AlignedWord[] | null> {
  const unknown = [...new Set(words)].filter((word) => decoder.lookup_word(word) === null)
  if (unknown.length > 0) decoder.add_words(...unknown.map((word): [string, string] => [word, soundsOf(word)]))
  await place(prefixGrammar(words), async (address) => {
    decoder.set_config('fsg', address)
    await decoder.init_grammar()
  })
  try {
    decoder.start()
    decoder.process_audio(pcm, false, true)
    decoder.stop()
    return readWords(decoder.get_alignment(), words, fromMicros)
  } catch {
    // The decoder found no way through the sound with these words.
    return null
  }
}

/** The words in their order, which may end behind any of them, as the decoder's finite-state grammar. */
function prefixGrammar(words: readonly string[]): string {
  const end = words.length + 1
  return [
    'FSG_BEGIN said',
    `NUM_STATES ${end + 1}`,
    'START_STATE 0',
    `FINAL_STATE ${end}`,
    ...words.flatMap((word, i) => [`TRANSITION ${i} ${i + 1} 1.0 ${word}`, `TRANSITION ${i + 1} ${end} 0.5`]),
    'FSG_END',
    '',
  ].join('\n')
}

/** `name(2)` is the second way in which a word is said. */
const bare = (name: string) => name.replace(/\(\d+\)$/, '')

function readWords({ w = [] }: DecodedWord, words: readonly string[], fromMicros: number): AlignedWord[] | null {
  const said = w.filter(({ t }) => !FILLERS.has(t))
  if (said.length === 0 || said.some(({ t }, i) => bare(t) !== words[i])) return null
  return said.map(({ b, d }) => ({
    fromMicros: fromMicros + Math.round(b * 1e6),
    toMicros: fromMicros + Math.round((b + d) * 1e6),
  }))
}
