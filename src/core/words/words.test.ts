import { createCanvas } from '@napi-rs/canvas'
import { describe, expect, test } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import type { CueId, PassageId, RecordingId, LayoutId, SetupId } from '../model/ids'
import { newPassage, type Passage } from '../model/passage'
import type { Cue } from '../model/words'
import { STANDARD_SHAPES } from '../model/shape'
import { wordArea } from '../layout/wordAreas'
import { timeMapOf } from '../time/timeMap'
import { brandedText } from './brandedText'
import { breakLines } from './breakLines'
import { blankCueAt, findText, joinToPrevious, moveEdge, replaceText, splitCue } from './cueEdits'
import { lineUpText, piecesOf } from './lineUpText'
import { outputCues } from './outputCues'
import { pieces } from './runs'
import { MIN_SIZE, setText, type Measure } from './setText'
import { CAPTION_STYLES, TITLE_STYLES } from './textStyles'
import { timedTokens, tokensOf } from './tokens'

const A = 'a' as RecordingId
const cue = (id: string, from: number, to: number, text: string, more: Partial<Cue> = {}): Cue => ({
  id: id as CueId,
  recordingId: A,
  fromMicros: from * 1e6,
  toMicros: to * 1e6,
  text,
  words: [],
  speakerId: null,
  ...more,
})
const passage = (from: number, to: number, more: Partial<Passage> = {}): Passage => ({
  ...newPassage({
    id: `p${from}` as PassageId,
    recordingId: A,
    inMicros: from * 1e6,
    outMicros: to * 1e6,
    setupId: 's' as SetupId,
    layoutId: 'l' as LayoutId,
  }),
  ...more,
})
const mapOf = (...passages: Passage[]) => timeMapOf({ passages, joinTiming: 'hold' })

/** Widths as a real canvas gives them, with whatever font stands in. */
const canvas = createCanvas(8, 8).getContext('2d')
const measure: Measure = (text, { weight, size }) => {
  canvas.font = `${weight} ${size}px sans-serif`
  return canvas.measureText(text).width
}
const tenPerLetter = (text: string) => text.length * 10

describe('words and their times', () => {
  test('words are parted at spaces, and in scripts without them by what reads as a word; punctuation stays with its word', () => {
    const words = (text: string) => tokensOf(text).map(({ from, to }) => text.slice(from, to))
    expect(words('Stay low,  stay low.')).toEqual(['Stay', 'low,', 'stay', 'low.'])
    expect(words('滑翔机着陆了。').join('')).toBe('滑翔机着陆了。')
    expect(words('滑翔机着陆了。').length).toBeGreaterThan(1)
    expect(words('')).toEqual([])
  })

  test('unknown times are shared out by length, without a gap and in order', () => {
    const timed = timedTokens(cue('c', 2, 5, 'A considerably longer word'))
    expect(timed[0]?.fromMicros).toBe(2e6)
    expect(timed.at(-1)?.toMicros).toBe(5e6)
    timed.slice(1).forEach((t, i) => expect(t.fromMicros).toBe(timed[i]?.toMicros))
    const lengths = timed.map((t) => t.toMicros - t.fromMicros)
    expect(lengths[1]).toBe(Math.max(...lengths))
  })

  test('after a correction, words that were timed keep their times and new ones take what lies between', () => {
    const words = [
      ['go', 1, 1.2],
      ['for', 1.2, 1.4],
      ['the', 1.4, 1.5],
      ['lift', 1.6, 2],
    ].map(([text, from, to]) => ({
      text: text as string,
      fromMicros: (from as number) * 1e6,
      toMicros: (to as number) * 1e6,
    }))
    const timed = timedTokens(cue('c', 1, 2, 'Go for the blue lift!', { words }))
    expect(timed.map((t) => t.fromMicros / 1e6)).toEqual([1, 1.2, 1.4, 1.5, 1.6])
    expect(timed.at(-1)?.toMicros).toBe(2e6)
  })
})

describe('cues in the output', () => {
  test('cutting, moving and speed carry them', () => {
    const cues = [cue('one', 1, 2, 'First line'), cue('two', 10, 12, 'Second line')]
    const out = outputCues({ cues }, mapOf(passage(9, 13, { speedPercent: 200 }), passage(0, 3)))
    expect(out.map((c) => [c.cueId, c.fromMicros / 1e6, c.toMicros / 1e6])).toEqual([
      ['two', 0.5, 1.5],
      ['one', 3, 4],
    ])
    expect(out[0]?.tokens[0]?.fromMicros).toBe(0.5e6)
  })

  test('what is struck out is not written; what is left over of a cue is shown once, without a hole', () => {
    const words = [
      ['one', 0, 1],
      ['two', 1, 2],
      ['three', 2, 3],
      ['four', 3, 4],
    ].map(([text, from, to]) => ({
      text: text as string,
      fromMicros: (from as number) * 1e6,
      toMicros: (to as number) * 1e6,
    }))
    const out = outputCues(
      { cues: [cue('c', 0, 4, 'one two three four', { words })] },
      mapOf(passage(0, 5, { strikes: [{ fromMicros: 1e6, toMicros: 3e6 }] })),
    )
    expect(out).toHaveLength(1)
    expect(out[0]).toMatchObject({ text: 'one four', fromMicros: 0, toMicros: 2e6 })
    expect(out[0]?.tokens.map((t) => [out[0]?.text.slice(t.from, t.to), t.fromMicros / 1e6])).toEqual([
      ['one', 0],
      ['four', 1],
    ])
  })

  test('a cue that only begins as its passage ends is not flashed', () => {
    expect(outputCues({ cues: [cue('c', 4.95, 8, 'Too late')] }, mapOf(passage(0, 5)))).toEqual([])
  })
})

describe('editing cues', () => {
  const pair = [cue('a', 0, 2, 'Stay low, stay low.'), cue('b', 3, 4, 'Clean turn!')]

  test('splitting and joining are each other’s reverse, in text and in time', () => {
    const split = splitCue(pair, 'a' as CueId, 10, 'n' as CueId)
    expect(split.map((c) => c.text)).toEqual(['Stay low,', 'stay low.', 'Clean turn!'])
    expect(split[0]?.toMicros).toBe(split[1]?.fromMicros)
    const joined = joinToPrevious(split, 'n' as CueId)
    expect(joined?.cues).toEqual(pair)
    expect(joined).toMatchObject({ id: 'a', at: 10 })
    expect(splitCue(pair, 'a' as CueId, 0, 'n' as CueId)).toEqual(pair)
    expect(joinToPrevious(pair, 'a' as CueId)).toBeNull()
  })

  test('what is split never comes to nothing, in time either', () => {
    const short: Cue = { ...cue('a', 0, 1, 'Stay low'), toMicros: 3 }
    const split = splitCue([short], 'a' as CueId, 5, 'n' as CueId)
    expect(split.map((c) => [c.fromMicros, c.toMicros])).toEqual([
      [0, 2],
      [2, 3],
    ])
    expect(splitCue(split, 'n' as CueId, 1, 'm' as CueId)).toEqual(split)
    // The last word is said at the very end of it; both are long enough to be read all the same.
    const late: Cue = {
      ...cue('a', 0, 2, 'Stay low'),
      words: [
        { text: 'Stay', fromMicros: 0, toMicros: 1_990_000 },
        { text: 'low', fromMicros: 1_990_000, toMicros: 2_000_000 },
      ],
    }
    expect(splitCue([late], 'a' as CueId, 5, 'n' as CueId).map((c) => c.toMicros - c.fromMicros)).toEqual([
      1_800_000, 200_000,
    ])
  })

  test('no more comes together in one than it can hold', () => {
    const long = [cue('a', 0, 2, 'x'.repeat(1200)), cue('b', 3, 4, 'y'.repeat(799)), cue('c', 5, 6, 'z')]
    const joined = joinToPrevious(long, 'b' as CueId)
    expect(joined?.cues[0]?.text).toHaveLength(2000)
    expect(joinToPrevious(joined?.cues ?? [], 'c' as CueId)).toBeNull()
    expect(
      replaceText(
        [cue('a', 0, 2, 'low '.repeat(400))],
        findText([cue('a', 0, 2, 'low '.repeat(400))], 'low', false),
        'x'.repeat(200),
      )[0]?.text,
    ).toHaveLength(2000)
  })

  test('an edge never passes the other one', () => {
    expect(moveEdge(pair, 'b' as CueId, 'from', 9e6)[1]?.fromMicros).toBe(3.8e6)
    expect(moveEdge(pair, 'b' as CueId, 'to', 0)[1]?.toMicros).toBe(3.2e6)
  })

  test('a blank takes the room there is', () => {
    expect(blankCueAt(pair, A, 2.5e6, 'n' as CueId)).toMatchObject({ fromMicros: 2.5e6, toMicros: 3e6, text: '' })
    expect(blankCueAt(pair, A, 1e6, 'n' as CueId)).toBeNull()
    expect(blankCueAt(pair, A, 20e6, 'n' as CueId)).toMatchObject({ toMicros: 22e6 })
  })

  test('words are found whole or in part and replaced wherever they are', () => {
    expect(findText(pair, 'low', false)).toHaveLength(2)
    expect(findText(pair, 'lo', true)).toHaveLength(0)
    expect(replaceText(pair, findText(pair, 'STAY LOW', true), 'keep down')[0]?.text).toBe('keep down, keep down.')
    expect(findText(pair, '.*', false)).toEqual([])
  })
})

describe('lines', () => {
  const linesOf = (text: string, width: number, most: number) =>
    breakLines(text, width, most, tenPerLetter)?.map(({ from, to }) => text.slice(from, to))

  test('break at the ends of phrases, unless that leaves them too unlike', () => {
    expect(linesOf('Gate five is behind us, nice and calm.', 300, 2)).toEqual([
      'Gate five is behind us,',
      'nice and calm.',
    ])
    expect(linesOf('Oh! The lift is right here now', 200, 2)).toEqual(['Oh! The lift is', 'right here now'])
    expect(linesOf('one line', 300, 2)).toEqual(['one line'])
    expect(linesOf('first\nsecond', 300, 2)).toEqual(['first', 'second'])
    expect(breakLines('unbreakablylongword', 100, 3, tenPerLetter)).toBeNull()
    expect(linesOf('滑翔机终于在傍晚着陆了', 60, 3)).toHaveLength(2)
  })
})

/** Every way of breaking a text at its spaces into so many lines, none wider than `width`; what must break does. */
function everyWay(text: string, width: number, lines: number): number[][] {
  const ends = [...text.matchAll(/[ \n]+/g)].map((m) => m.index + m[0].length).concat(text.length)
  const wide = (from: number, to: number) => text.slice(from, to).trim().length * 10
  const from = (start: number, left: number): number[][] =>
    ends.flatMap((end) => {
      if (end <= start || wide(start, end) > width || text.slice(start, end).trimEnd().includes('\n')) return []
      if (end === text.length) return left === 1 ? [[end]] : []
      return left > 1 ? from(end, left - 1).map((rest) => [end, ...rest]) : []
    })
  return from(0, lines)
}

test(`lines are the best of all that there are, in as few as can be (seed ${SEED})`, () => {
  const random = seeded(SEED)
  const words = ['lift', 'ridge,', 'and', 'low.', 'thermals', 'no', 'because', 'gate!', 'a', 'winching']
  let broken = 0
  for (let n = 0; n < 400; n++) {
    const text = Array.from({ length: random.integer(1, 11) }, () => random.pick(words))
      .join(' ')
      .replace(/ /g, () => (random.next() < 0.06 ? '\n' : ' '))
    const [width, most] = [random.integer(8, 30) * 10, random.integer(1, 4)]
    const found = breakLines(text, width, most, tenPerLetter)
    const fewest = [1, 2, 3, 4].slice(0, most).find((lines) => everyWay(text, width, lines).length > 0)
    expect(found?.length, text).toBe(fewest)
    if (!found || !fewest) continue
    if (fewest > 1) broken++
    const cost = (cuts: readonly number[]) => {
      const lines = cuts.map((to, i) => text.slice(cuts[i - 1] ?? 0, to).trim())
      const torn = cuts.slice(0, -1).map((at): number => {
        if (text.slice(0, at).trimEnd().length < at && text.slice(0, at).endsWith('\n')) return 0
        if (/[.,!]$/.test(text.slice(0, at).trimEnd())) return 0
        return /^(and|because)\b/.test(text.slice(at)) ? 0.2 : 0.5
      })
      const wide = lines.map((l) => l.length * 10)
      return torn.reduce((a, b) => a + b, 0) + ((Math.max(...wide) - Math.min(...wide)) / Math.max(...wide)) ** 2
    }
    const cuts = found.map((_, i) => found[i + 1]?.from ?? text.length)
    expect(cost(cuts), text).toBeCloseTo(Math.min(...everyWay(text, width, fewest).map(cost)), 9)
  }
  expect(broken, 'texts of several lines').toBeGreaterThan(100)
})

test('a text of two thousand letters is broken as well', () => {
  const long = Array.from({ length: 400 }, (_, n) => (n % 7 === 0 ? 'low,' : 'lift')).join(' ')
  for (const width of [5000, 6000, 7000, 10_000]) {
    const lines = breakLines(long, width, 4, tenPerLetter)
    expect(lines?.map(({ from, to }) => long.slice(from, to)).join(' ')).toBe(long)
  }
  expect(breakLines(long, 4900, 4, tenPerLetter)).toBeNull()
})

test(`200 titles in four shapes and every style stay in their area, and are only set very small when that is said (seed ${SEED})`, () => {
  const random = seeded(SEED)
  const letters = [
    'lift',
    'ridge',
    'Thermals',
    'über',
    'and',
    'winch',
    'no',
    'last gate',
    'cloudbase',
    '滑翔机',
    'שלום',
    'مرحبا',
    '🪂',
    'Weathercock',
  ]
  const styles = [...TITLE_STYLES, ...CAPTION_STYLES].map((s) => s.style)
  const arrangement = {
    tree: { kind: 'space' as const },
    insets: [],
    backdrop: { kind: 'colour' as const, colour: '#000000' },
  }
  for (let n = 0; n < 200; n++) {
    const text = Array.from({ length: random.integer(1, 16) }, () => random.pick(letters)).join(
      random.pick([' ', ' ', ', ']),
    )
    const style = {
      ...random.pick(styles),
      align: random.pick(['start', 'middle', 'end'] as const),
      place: random.pick(['top', 'middle', 'bottom'] as const),
    }
    for (const shape of STANDARD_SHAPES) {
      const area = wordArea('titleArea', arrangement, shape)
      const side = Math.min(shape.width, shape.height)
      const set = setText(text, style, area, side, measure)
      expect(set, text).not.toBeNull()
      if (!set) continue
      expect(set.extent.x).toBeGreaterThanOrEqual(area.x - 0.01)
      expect(set.extent.y).toBeGreaterThanOrEqual(area.y - 0.01)
      expect(set.extent.x + set.extent.width).toBeLessThanOrEqual(area.x + area.width + 0.01)
      expect(set.extent.y + set.extent.height).toBeLessThanOrEqual(area.y + area.height + 0.01)
      if (!set.tooLong) expect(set.face.size).toBeGreaterThanOrEqual(MIN_SIZE * style.size * side - 0.01)
      expect(
        set.lines
          .map((l) => set.text.slice(l.from, l.to))
          .join('')
          .replace(/\s/g, ''),
      ).toBe(set.text.replace(/\s/g, ''))
    }
  }
})

test('the spoken word is a piece of its line, from the left or from the right as the line runs', () => {
  const style = CAPTION_STYLES[0]?.style
  if (!style) throw new Error('no style')
  const area = { x: 0, y: 0, width: 1000, height: 200 }
  for (const [text, right] of [
    ['stay low now', false],
    ['שלום לכל הטייסים', true],
  ] as const) {
    const set = setText(text, style, area, 1000, measure)
    const line = set?.lines[0]
    const [first] = tokensOf(text)
    if (!set || !line || !first) throw new Error('not set')
    const {
      word: [word, ...more],
      others: [after, ...others],
    } = pieces(set, line, first, measure)
    expect([...more, ...others]).toEqual([])
    expect(line.right).toBe(right)
    if (right) expect((word?.x ?? 0) + (word?.width ?? 0)).toBeCloseTo(line.x + line.width, 3)
    else expect(word?.x).toBeCloseTo(line.x, 3)
    expect((word?.width ?? 0) + (after?.width ?? 0)).toBeCloseTo(line.width, 3)
  }
})

test('in a line that runs both ways the spoken word is where it is seen', () => {
  const style = CAPTION_STYLES[0]?.style
  if (!style) throw new Error('no style')
  // As they are seen from left to right, by Unicode Standard Annex #9: Hebrew words of a left-to-right line stand
  // last to first, numbers and Latin words keep their order.
  const lines: [string, string[]][] = [
    ['stay low שלום לכל now', ['stay', 'low', 'לכל', 'שלום', 'now']],
    ['שלום Ridge Pilot לכל', ['לכל', 'Ridge', 'Pilot', 'שלום']],
    ['שלום gate 5 לכל', ['לכל', 'gate', '5', 'שלום']],
  ]
  for (const [text, seen] of lines) {
    const set = setText(text, style, { x: 0, y: 0, width: 2000, height: 200 }, 1000, measure)
    const line = set?.lines[0]
    if (!set || !line || set.lines.length > 1) throw new Error('not set on one line')
    const places = tokensOf(text).map((token) => {
      const { word, others } = pieces(set, line, token, measure)
      expect(word.map((p) => set.text.slice(p.from, p.to))).toEqual([set.text.slice(token.from, token.to)])
      expect([...word, ...others].reduce((sum, p) => sum + p.width, 0)).toBeCloseTo(line.width, 3)
      const inOrder = [...word, ...others].sort((a, b) => a.from - b.from)
      expect(inOrder.map((p) => set.text.slice(p.from, p.to)).join('')).toBe(set.text)
      return { text: text.slice(token.from, token.to), x: word[0]?.x ?? NaN }
    })
    expect(places.sort((a, b) => a.x - b.x).map((p) => p.text)).toEqual(seen)
  }
})

test('a pasted text is lined up with speech: sentences begin where somebody begins to speak', () => {
  const speech = [
    [0.8, 4.1],
    [4.4, 6.7],
    [10.6, 14.1],
    [16.9, 18.4],
    [19.4, 21.3],
  ].map(([from, to]) => ({ fromMicros: (from as number) * 1e6, toMicros: (to as number) * 1e6 }))
  const text =
    'Okay, gate five is behind us, nice and calm. I think the lift is on the far side of the ridge.\nAnd that is the last gate before the ridge, stay low, stay low. Oh! The lift is right here! Go, go, go! Clean turn!'
  const lined = lineUpText(text, speech)
  expect(lined.map((l) => l.text)).toEqual(piecesOf(text))
  const startOf = (words: string) => (lined.find((l) => l.text.startsWith(words))?.fromMicros ?? NaN) / 1e6
  expect(startOf('Okay')).toBeCloseTo(0.8, 1)
  expect(startOf('I think')).toBeCloseTo(4.4, 1)
  expect(startOf('And that')).toBeCloseTo(10.6, 1)
  expect(startOf('Oh!')).toBeCloseTo(16.9, 1)
  expect(startOf('Go,')).toBeCloseTo(19.4, 1)
  lined.slice(1).forEach((l, i) => expect(l.fromMicros).toBeGreaterThanOrEqual(lined[i]?.toMicros ?? 0))
  expect(lineUpText(text, [])).toEqual([])
})

test('a brand gives words its font, and its colours where they stand on something of their own', () => {
  const brand = {
    palette: { ground: '#112233', ink: '#eeeeee', accent: '#ff8800' },
    fonts: { title: 'Anton', captions: 'Lora' },
  }
  for (const { style } of [...CAPTION_STYLES, ...TITLE_STYLES]) {
    const made = brandedText(style, brand, 'captions')
    expect(made.font).toBe('Lora')
    expect(made.colour).toBe(style.block ? '#eeeeee' : style.colour)
    expect(made.block?.colour).toBe(style.block ? '#112233' : undefined)
    if (made.emphasis.kind !== 'none') expect(made.emphasis.colour).toBe('#ff8800')
    expect({ ...made, font: '', colour: '', block: null, emphasis: null }).toEqual({
      ...style,
      font: '',
      colour: '',
      block: null,
      emphasis: null,
    })
  }
  expect(brandedText((TITLE_STYLES[0] as (typeof TITLE_STYLES)[number]).style, brand, 'title').font).toBe('Anton')
})
