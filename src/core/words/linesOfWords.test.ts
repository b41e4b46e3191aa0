import { expect, test } from 'vitest'
import { linesOfWords } from './linesOfWords'

const heard = (text: string, from: number, to: number) => ({ text, fromMicros: from * 1e6, toMicros: to * 1e6 })

test('a line ends with its sentence and at a pause', () => {
  const lines = linesOfWords([
    heard(' Low', 0, 0.3),
    heard(' save.', 0.3, 0.6),
    heard(' Find', 0.7, 0.9),
    heard(' lift', 0.9, 1.2),
    heard(' now', 2.4, 2.6),
  ])
  expect(lines.map((l) => l.text)).toEqual(['Low save.', 'Find lift', 'now'])
  expect(lines[0]).toMatchObject({ fromMicros: 0, toMicros: 0.6e6, words: [{ text: 'Low' }, { text: 'save.' }] })
})

test('no line is longer than can be read at a time', () => {
  const words = Array.from({ length: 60 }, (_, i) => heard(` word${i}`, i * 0.2, i * 0.2 + 0.2))
  const lines = linesOfWords(words)
  for (const { text } of lines) expect(text.length).toBeLessThanOrEqual(84)
  expect(lines.flatMap((l) => l.words.map((w) => w.text))).toEqual(words.map((w) => w.text.trim()))
})

test('scripts without spaces stay without', () => {
  expect(linesOfWords([heard('今日', 0, 0.4), heard('は', 0.4, 0.5), heard('。', 0.5, 0.5)])[0]?.text).toBe('今日は。')
})
