import { describe, expect, it } from 'vitest'
import { seeded } from '../../../../tests/support/seeded'
import type { SpeechStretch } from '../../sound/ducking'
import { alignWords, type AlignedWord } from './alignWords'
import { HEARD_RATE, hearWords, type DecodedWord, type WordDecoder } from './hearWords'
import { isEnglish } from './isEnglish'
import { soundsOf } from './letterToSound'
import { numberInWords, ordinalInWords, yearInWords } from './numberWords'
import { WordListener } from './wordListener'
import { saidTokens } from './saidTokens'
import { saidWords, timedPieces } from './timedPieces'

const saidIn = (text: string) => saidTokens(text).map((t) => t.said.join(' '))

describe('what is said for what is written', () => {
  it.each([
    [0, 'zero'],
    [13, 'thirteen'],
    [40, 'forty'],
    [99, 'ninety nine'],
    [100, 'one hundred'],
    [1_015, 'one thousand fifteen'],
    [2_300_004, 'two million three hundred thousand four'],
  ])('%i', (n, words) => expect(numberInWords(n)).toBe(words))

  it('years and places in an order', () => {
    expect([1974, 1905, 1900, 2005, 2026].map(yearInWords)).toEqual([
      'nineteen seventy four',
      'nineteen oh five',
      'nineteen hundred',
      'two thousand five',
      'twenty twenty six',
    ])
    expect([1, 2, 3, 12, 20, 21, 100].map(ordinalInWords)).toEqual([
      ...['first', 'second', 'third', 'twelfth', 'twentieth', 'twenty first', 'one hundredth'],
    ])
  })

  it('numbers, signs, abbreviations and what clings to words', () => {
    expect(saidIn('“Well,” said Dr. Orme — it’s 50% off!')).toEqual([
      ...['well', 'said', 'doctor', 'orme', '', "it's", 'fifty percent', 'off'],
    ])
    expect(saidIn('$12 & 3.5 at 12:30 in 1974, the 1990s')).toEqual([
      ...['twelve dollars', 'and', 'three point five', 'at', 'twelve thirty', 'in', 'nineteen seventy four', 'the'],
      'nineteen nineties',
    ])
    expect(saidIn('The 3rd well-known café, #7, 1,200 km')).toEqual([
      ...['the', 'third', 'well known', 'cafe', 'number seven', 'one thousand two hundred', 'kilometers'],
    ])
    expect(saidIn('')).toEqual([])
  })

  it('gives each word its place in the text', () => {
    const text = 'So, 21 of them.'
    expect(saidTokens(text).map((t) => text.slice(t.from, t.to))).toEqual(['So,', '21', 'of', 'them.'])
  })

  it('English is told from its neighbours, by its small words too', () => {
    // What the shipped dictionary knows of these, names among them, was counted once.
    const names = ['den', 'per', 'una', 'con', 'si', 'el', 'la', 'que', 'se', 'es', 'todo', 'casa', 'vista', 'bella']
    const isKnown = (word: string) => names.includes(word) || /^(we|go|stay|low|the|over|ridge|now|wren)$/.test(word)
    expect(isEnglish(['we', 'stay', 'low', 'over', 'the', 'ridge', 'now', 'wren'], isKnown)).toBe(true)
    expect(isEnglish(['stay', 'low'], isKnown)).toBe(true)
    expect(isEnglish(['la', 'casa', 'es', 'una', 'vista', 'que', 'se', 'con', 'todo'], isKnown)).toBe(false)
    expect(isEnglish(['heute', 'wird', 'den'], isKnown)).toBe(false)
    // Of a text in another script nothing is left that could be said.
    expect(isEnglish([], isKnown)).toBe(false)
  })

  it('sounds for words that no dictionary has, of the sounds there are', () => {
    const SOUNDS = new Set(
      'AA AE AH AO AW AY B CH D DH EH ER EY F G HH IH IY JH K L M N NG OW OY P R S SH T TH UH UW V W Y Z ZH'.split(' '),
    )
    expect(soundsOf('brimble')).toBe('B R IH M B L')
    expect(soundsOf('shane')).toBe('SH EY N')
    expect(soundsOf('gpx')).toBe('JH IY P IY EH K S')
    const random = seeded(7)
    for (let n = 0; n < 500; n++) {
      const word = Array.from({ length: random.integer(1, 12) }, () =>
        String.fromCharCode(97 + random.integer(0, 25)),
      ).join('')
      const sounds = soundsOf(word).split(' ')
      expect(
        sounds.every((s) => SOUNDS.has(s)),
        `${word}: ${sounds.join(' ')}`,
      ).toBe(true)
    }
  })
})

/** Words that are said at known times, and a listener that hears them as a decoder would: those that are there. */
function spoken(count: number, seed: number) {
  const random = seeded(seed)
  const words: string[] = []
  const truth: AlignedWord[] = []
  const speech: SpeechStretch[] = []
  let [t, from] = [2e6, 2e6]
  for (let n = 0; n < count; n++) {
    const word = `w${n}`
    const lasts = random.integer(120_000, 400_000)
    words.push(word)
    truth.push({ fromMicros: t, toMicros: t + lasts })
    t += lasts
    if (random.next() < 0.15) {
      speech.push({ fromMicros: from, toMicros: t })
      t += random.integer(200_000, 1_500_000)
      from = t
    }
  }
  speech.push({ fromMicros: from, toMicros: t })
  const asked: number[] = []
  const hear = (fromMicros: number, toMicros: number, wanted: readonly string[]) => {
    asked.push(toMicros - fromMicros)
    const first = words.indexOf(wanted[0] ?? '')
    const there = truth
      .slice(first, first + wanted.length)
      .filter((w) => w.fromMicros >= fromMicros - 1 && w.toMicros <= toMicros + 1)
    return Promise.resolve(there.length > 0 ? there : null)
  }
  return { words, truth, speech, hear, asked }
}

describe('words on sound', () => {
  it.each([1, 5, 60, 1500])('%i words lie where they are said, heard a stretch at a time', async (count) => {
    const { words, truth, speech, hear, asked } = spoken(count, count)
    const shares: number[] = []
    expect(await alignWords(words, speech, hear, (share) => shares.push(share))).toEqual(truth)
    expect(Math.max(...asked)).toBeLessThan(50e6)
    // What is heard twice stays within a third.
    const all = truth.at(-1)?.toMicros ?? 0
    expect(asked.reduce((a, b) => a + b, 0)).toBeLessThan(1.4 * all + 5e6)
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    expect(shares[0]).toBe(0)
  })

  it('what is not said has no time, and nothing is asked for where nobody speaks', async () => {
    const { words, truth, speech, hear } = spoken(20, 3)
    expect(await alignWords([...words, 'more', 'words'], speech, hear)).toEqual([...truth, null, null])
    expect(await alignWords(words, [], hear)).toEqual(words.map(() => null))
    expect(await alignWords([], speech, hear)).toEqual([])
    expect(await alignWords(words, speech, () => Promise.resolve(null))).toEqual(words.map(() => null))
  })

  it('a word that swallowed what comes before it begins where speech does, else as late as it can', async () => {
    const at = (from: number, to: number) => ({ fromMicros: from * 1e6, toMicros: to * 1e6 })
    const speech = [
      { fromMicros: 1e6, toMicros: 2e6 },
      { fromMicros: 4e6, toMicros: 9e6 },
    ]
    const heard = [at(1, 1.4), at(2, 4.5), at(4.5, 8.5)]
    expect(await alignWords(['stay', 'low', 'wren'], speech, () => Promise.resolve(heard))).toEqual([
      at(1, 1.4),
      at(4, 4.5),
      at(7.89, 8.5),
    ])
  })

  it('a decoder’s answer becomes times; what is no beginning of the words is none', async () => {
    const added: string[] = []
    let grammar = ''
    const decoderThatSays = (w: DecodedWord[]): WordDecoder => ({
      lookup_word: (word) => (word === 'wren' ? null : 'AH'),
      add_words: (...all) => added.push(...all.map(([word, sounds]) => `${word} ${sounds}`)),
      set_config: () => true,
      init_grammar: () => Promise.resolve(),
      start: () => {},
      process_audio: () => 0,
      stop: () => {},
      get_alignment: () => ({ t: '', b: 0, d: 3, w }),
    })
    const word = (t: string, b: number, d: number) => ({ t, b, d })
    const place = async (text: string, read: (address: string) => Promise<void>) => {
      grammar = text
      await read('there')
    }
    const pcm = new Float32Array(16_000)
    const says = decoderThatSays([word('<sil>', 0, 0.5), word('stay(2)', 0.5, 0.25), word('wren', 0.75, 0.5)])
    expect(await hearWords(says, place, pcm, 1e6, ['stay', 'wren', 'low'])).toEqual([
      { fromMicros: 1.5e6, toMicros: 1.75e6 },
      { fromMicros: 1.75e6, toMicros: 2.25e6 },
    ])
    expect(added).toEqual(['wren R EH N'])
    expect(grammar.split('\n').slice(0, 6)).toEqual([
      ...['FSG_BEGIN said', 'NUM_STATES 5', 'START_STATE 0', 'FINAL_STATE 4'],
      ...['TRANSITION 0 1 1.0 stay', 'TRANSITION 1 4 0.5'],
    ])
    expect(await hearWords(decoderThatSays([word('low', 0, 1)]), place, pcm, 0, ['stay'])).toBeNull()
    expect(await hearWords(decoderThatSays([]), place, pcm, 0, ['stay'])).toBeNull()
  })
})

describe('a decoder that wears out', () => {
  /** Decoders that break when they have been given more grammars than they have room for. */
  function wearing(room: number) {
    let loaded = 0
    const load = () => {
      loaded++
      let taken = 0
      const decoder: WordDecoder = {
        lookup_word: () => 'AH',
        add_words: () => {},
        set_config: () => true,
        init_grammar: () => (++taken > room ? Promise.reject(new Error('out of bounds')) : Promise.resolve()),
        start: () => {},
        process_audio: () => 0,
        stop: () => {},
        get_alignment: () => ({ t: '', b: 0, d: 1, w: [{ t: 'stay', b: 0, d: 0.5 }] }),
      }
      return Promise.resolve(decoder)
    }
    const listener = new WordListener(load, (_, read) => read('there'))
    const hear = (seconds: number) => listener.hear(new Float32Array(seconds * HEARD_RATE), 0, ['stay'])
    return { hear, loads: () => loaded }
  }
  const stay = [{ fromMicros: 0, toMicros: 500_000 }]

  it('is replaced before it breaks, and when it breaks', async () => {
    const hour = wearing(40)
    for (let at = 0; at < 3600; at += 20) expect(await hour.hear(20)).toEqual(stay)
    expect(hour.loads()).toBe(12)
    const early = wearing(2)
    for (let n = 0; n < 4; n++) expect(await early.hear(1)).toEqual(stay)
    expect(early.loads()).toBe(2)
    await expect(wearing(0).hear(1)).rejects.toThrow('out of bounds')
  })
})

describe('pieces of a text', () => {
  const piece = (text: string, from: number, to: number) => ({ text, fromMicros: from * 1e6, toMicros: to * 1e6 })
  const at = (from: number, to: number) => ({ fromMicros: from * 1e6, toMicros: to * 1e6 })

  it('take the times of their words, in order and long enough to be read', () => {
    const pieces = [
      piece('Go!', 0, 1),
      piece('Stay low — 20 m.', 1, 3),
      piece('Nobody hears this.', 3, 4),
      piece('Yes.', 4, 5),
    ]
    expect(saidWords(pieces)).toHaveLength(9)
    const aligned = [
      at(0.5, 0.7),
      at(1.1, 1.4),
      at(1.4, 1.6),
      at(1.8, 2.2),
      at(2.2, 2.5),
      null,
      null,
      null,
      at(4.2, 4.4),
    ]
    const timed = timedPieces(pieces, aligned)
    expect(timed.map((p) => [p.fromMicros / 1e6, p.toMicros / 1e6])).toEqual([
      [0.5, 1.1],
      [1.1, 2.5],
      [3, 4],
      [4.2, 5],
    ])
    expect(timed[1]?.words).toEqual([
      { text: 'Stay', fromMicros: 1.1e6, toMicros: 1.4e6 },
      { text: 'low', fromMicros: 1.4e6, toMicros: 1.6e6 },
      { text: '20', fromMicros: 1.8e6, toMicros: 2.2e6 },
      { text: 'm.', fromMicros: 2.2e6, toMicros: 2.5e6 },
    ])
    expect(timed[2]?.words).toEqual([])
  })
})
