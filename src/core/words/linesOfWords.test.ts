import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { linesOfWords, type HeardWord } from './linesOfWords'

const heard = (text: string, from: number, to: number) => ({ text, fromMicros: from * 1e6, toMicros: to * 1e6 })
/** Words said without a pause, each `seconds` long. */
const said = (text: string, from = 0, seconds = 0.3) =>
  text.split(' ').map((word, i) => heard(` ${word}`, from + i * seconds, from + (i + 1) * seconds))
const texts = (words: readonly HeardWord[]) => linesOfWords(words).map((l) => l.text)

describe('lines of words', () => {
  it('end with sentences and at pauses', () => {
    const words = [...said('We are low.', 0), ...said('Find some lift', 1.5), ...said('before the ridge', 3.4)]
    expect(texts(words)).toEqual(['We are low.', 'Find some lift', 'before the ridge'])
    expect(linesOfWords(words)[0]).toMatchObject({ words: [{ text: 'We' }, { text: 'are' }, { text: 'low.' }] })
  })

  it('are parted after a phrase rather than in the middle of one', () => {
    const words = said(
      'When the wind turns over the eastern ridge in the evening, we shall all have to land on the other field',
    )
    expect(texts(words)).toEqual([
      'When the wind turns over the eastern ridge in the evening,',
      'we shall all have to land on the other field',
    ])
  })

  it('are parted at a breath where there is no comma', () => {
    const first = said('The glider in the second place has found a street of clouds')
    const words = [...first, ...said('and it will be over the last gate before anybody else', 12 * 0.3 + 0.25)]
    expect(texts(words)[0]).toBe('The glider in the second place has found a street of clouds')
  })

  it('stay on the picture until the next where that is near, and long enough to be read', () => {
    const lines = linesOfWords([...said('Hold your height.', 0), ...said('Turn.', 1.1), ...said('Now we glide.', 6)])
    expect(lines.map((l) => l.text)).toEqual(['Hold your height. Turn.', 'Now we glide.'])
    const alone = linesOfWords(said('Yes.', 2))[0]
    expect(alone && alone.toMicros - alone.fromMicros).toBe(800_000)
    const [before, after] = linesOfWords([...said('We cross the gate.', 0), ...said('We have won it.', 1.5)])
    expect(before?.toMicros).toBe(after?.fromMicros)
  })

  it(`keep every word in order, none too long, none over the next (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 200; round++) {
      let t = 0
      const words = Array.from({ length: random.integer(1, 80) }, (): HeardWord => {
        t += random.pick([0, 0, 0, 0.1, 0.3, 0.9])
        const from = t
        t += random.between(0.08, 0.7)
        const text = ` ${'abcdefghij'.slice(0, random.integer(1, 10))}${random.pick(['', '', '', ',', '.'])}`
        return { text, fromMicros: Math.round(from * 1e6), toMicros: Math.round(t * 1e6) }
      })
      const lines = linesOfWords(words)
      expect(lines.flatMap((l) => l.words.map((w) => w.text))).toEqual(words.map((w) => w.text.trim()))
      lines.forEach((line, i) => {
        const next = lines[i + 1]
        const gap = (next?.fromMicros ?? Infinity) - line.toMicros
        expect(line.text.length).toBeLessThanOrEqual(84)
        expect(gap === 0 || gap >= 400_000, `${gap}`).toBe(true)
        expect(line.toMicros).toBeGreaterThanOrEqual(line.words.at(-1)?.toMicros ?? 0)
        expect((line.words.at(-1)?.toMicros ?? 0) - line.fromMicros).toBeLessThanOrEqual(7_000_000)
      })
    }
  })

  it('of scripts without spaces stay without', () => {
    expect(texts([heard('今日', 0, 0.4), heard('は', 0.4, 0.5), heard('。', 0.5, 0.5)])).toEqual(['今日は。'])
  })
})
