import { expect, test } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import type { CueId, SpeakerId, TitleId } from '../model/ids'
import { STANDARD_SHAPES, type Shape } from '../model/shape'
import { PLAIN_TEXT } from '../model/textStyle'
import { NO_WORDS, type Words } from '../model/words'
import { timeMapOf } from '../time/timeMap'
import { compose } from './compose'
import { textsOf } from './composition'

const tall = STANDARD_SHAPES[0] as Shape

/** The sample edit plays a recording from 12 s on. */
function textsAt(t: number, words: Partial<Words>, shape = tall) {
  const edit = sampleEdit()
  edit.highlight.words = { ...NO_WORDS, ...words }
  return textsOf(compose(edit, timeMapOf(edit.highlight), shape, t) ?? { steps: [] })
}

const [passage] = sampleEdit().highlight.passages
if (!passage) throw new Error('no passage')
const cue = (text: string, from: number, to: number, speakerId: SpeakerId | null = null) => ({
  id: text as CueId,
  recordingId: passage.recordingId,
  fromMicros: passage.inMicros + from * 1e6,
  toMicros: passage.inMicros + to * 1e6,
  text,
  words: [],
  speakerId,
})

test('captions are on while they are said, and not when they are switched off', () => {
  const cues = [cue('Clean turn', 1, 2)]
  expect(textsAt(0.99e6, { cues })).toEqual([])
  expect(textsAt(1e6, { cues }).map((s) => s.text)).toEqual(['Clean turn'])
  expect(textsAt(2e6, { cues })).toEqual([])
  expect(textsAt(1e6, { cues, captions: { ...NO_WORDS.captions, shown: false } })).toEqual([])
})

test('the word being spoken is told where the style makes it stand out', () => {
  const style = { ...PLAIN_TEXT, emphasis: { kind: 'box', colour: '#2e5e3e' } as const }
  const wordAt = (t: number) =>
    textsAt(t, { cues: [cue('one two', 1, 3)], captions: { ...NO_WORDS.captions, style } })[0]?.word
  expect(wordAt(1.1e6)).toMatchObject({ from: 0, to: 3 })
  expect(wordAt(2.9e6)).toMatchObject({ from: 4, to: 7 })
  expect(textsAt(1.1e6, { cues: [cue('one two', 1, 3)] })[0]?.word).toBeNull()
})

test('speakers are told by colour or by name, and two who speak at once stand one above the other', () => {
  const wren = { id: 'w' as SpeakerId, name: 'Wren', colour: '#ffcc00' }
  const cues = [cue('Lift!', 1, 3, wren.id), cue('Where?', 1, 3)]
  const byColour = textsAt(2e6, { cues, speakers: [wren] })
  expect(byColour.map((s) => [s.text, s.style.colour])).toEqual([
    ['Lift!', '#ffcc00'],
    ['Where?', '#ffffff'],
  ])
  const [upper, lower] = byColour
  expect((upper?.area.y ?? 0) + (upper?.area.height ?? 0)).toBeLessThanOrEqual((lower?.area.y ?? 0) + 1e-6)
  const byName = textsAt(2e6, { cues, speakers: [wren], captions: { ...NO_WORDS.captions, speakers: 'name' } })
  expect(byName[0]?.text).toBe('Wren: Lift!')
})

test('titles last as long as they are told to, and come in as their style says, never larger than they will be', () => {
  const title = {
    id: 't' as TitleId,
    text: 'Last gate',
    fromMicros: 2e6,
    toMicros: 4e6,
    style: { ...PLAIN_TEXT, entry: 'pop' as const },
  }
  expect(textsAt(1.9e6, { titles: [title] })).toEqual([])
  expect(textsAt(4e6, { titles: [title] })).toEqual([])
  const scales = [2e6, 2.1e6, 2.2e6, 3e6].map((t) => textsAt(t, { titles: [title] })[0]?.scale ?? NaN)
  expect(scales[0]).toBeLessThan(0.75)
  scales.slice(1).forEach((s, i) => expect(s).toBeGreaterThanOrEqual(scales[i] ?? 0))
  expect(Math.max(...scales)).toBe(1)
  const whole = { ...title, fromMicros: null, toMicros: null, style: PLAIN_TEXT }
  expect(textsAt(0, { titles: [whole] })).toHaveLength(1)
})

test('words lie inside the canvas in every shape, titles above captions', () => {
  for (const shape of STANDARD_SHAPES) {
    const [title, caption] = textsAt(
      1e6,
      {
        cues: [cue('Clean turn', 0, 2)],
        titles: [{ id: 't' as TitleId, text: 'Last gate', fromMicros: null, toMicros: null, style: PLAIN_TEXT }],
      },
      shape,
    )
    for (const { area } of [title, caption].flatMap((s) => s ?? [])) {
      expect(area.x).toBeGreaterThanOrEqual(0)
      expect(area.x + area.width).toBeLessThanOrEqual(shape.width)
      expect(area.y + area.height).toBeLessThanOrEqual(shape.height)
    }
    expect((title?.area.y ?? 0) + (title?.area.height ?? 0)).toBeLessThan(caption?.area.y ?? 0)
  }
})
