import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import type { FrameRate } from '../time/frameRate'
import { formatTimecode, parseTimecode } from '../time/timecode'
import { chaptersInFile } from './chaptersInFile'
import { parseTime, readCsvMarks, writeCsvMarks } from './csvMarks'
import { readEdlMarks, writeEdlMarks } from './edlMarks'
import type { Mark } from './mark'
import { readVttMarks, writeVttMarks } from './vttMarks'

const P30: FrameRate = { num: 30, den: 1 }
const NTSC: FrameRate = { num: 30000, den: 1001 }
const HOUR = 3_600_000_000
const labels = [
  'Last gate, no lift',
  'a "quoted" word',
  '=SUM(A1)',
  '<b>bold</b> & bare',
  'semi;colon',
  'Höhenflug 山',
  '',
]

function someMarks(random: ReturnType<typeof seeded>, rate: FrameRate, count = 20): Mark[] {
  let frame = 0
  return Array.from({ length: count }, () => {
    frame += random.integer(1, 4000)
    const inMicros = Math.round((frame * rate.den * 1e6) / rate.num)
    frame += random.integer(1, 900)
    return { inMicros, outMicros: Math.round((frame * rate.den * 1e6) / rate.num), label: random.pick(labels) }
  })
}

describe('timecode', () => {
  it('counts drop frames as SMPTE ST 12-1 has it', () => {
    expect(formatTimecode(parseTimecode('00:01:00;02', NTSC) ?? 0, NTSC, true)).toBe('00:01:00;02')
    // 29.97 drop frame keeps within two frames of the clock over an hour.
    expect(Math.abs((parseTimecode('01:00:00;00', NTSC) ?? 0) - HOUR)).toBeLessThan(66_000)
    expect(parseTimecode('00:00:01:00', P30)).toBe(1_000_000)
    for (const bad of ['1:2:3', '00:00:00:30', '00:61:00:00', 'x', '00:00:00:00:00'])
      expect(parseTimecode(bad, P30), bad).toBeNull()
  })

  it(`comes back from every frame, with and without drop (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let i = 0; i < 3000; i++) {
      const rate = random.pick<FrameRate>([
        P30,
        NTSC,
        { num: 60000, den: 1001 },
        { num: 25, den: 1 },
        { num: 24000, den: 1001 },
      ])
      const t = Math.round((random.integer(0, 500_000) * rate.den * 1e6) / rate.num)
      const drop = random.next() < 0.5
      expect(parseTimecode(formatTimecode(t, rate, drop), rate)).toBe(t)
    }
  })
})

describe('round trips', () => {
  it(`CSV gives back times and labels to the microsecond (seed ${SEED})`, () => {
    const marks = someMarks(seeded(SEED), P30)
    const back = readCsvMarks(writeCsvMarks(marks), P30, HOUR)
    expect(back.problems).toEqual([])
    expect(back.marks).toEqual(marks.map((m) => ({ ...m, label: m.label.startsWith('=') ? `'${m.label}` : m.label })))
  })

  it(`WebVTT gives back times to the millisecond (seed ${SEED})`, () => {
    const marks = someMarks(seeded(SEED), P30).map((m) => ({
      ...m,
      inMicros: Math.round(m.inMicros / 1000) * 1000,
      outMicros: Math.round((m.outMicros ?? 0) / 1000) * 1000,
    }))
    const back = readVttMarks(writeVttMarks(marks), HOUR)
    expect(back.problems).toEqual([])
    expect(back.marks.map(({ inMicros, outMicros }) => [inMicros, outMicros])).toEqual(
      marks.map(({ inMicros, outMicros }) => [inMicros, outMicros]),
    )
    back.marks.forEach((m, i) => expect(m.label).toBe(marks[i]?.label || `Mark ${i + 1}`))
  })

  for (const rate of [P30, NTSC, { num: 60, den: 1 }])
    it(`EDL gives back every frame at ${rate.num}/${rate.den} (seed ${SEED})`, () => {
      const marks = someMarks(seeded(SEED), rate)
      const back = readEdlMarks(writeEdlMarks(marks, 'Ridge Cup', rate), rate, HOUR)
      expect(back.problems).toEqual([])
      expect(back.marks.map(({ inMicros, outMicros }) => [inMicros, outMicros])).toEqual(
        marks.map(({ inMicros, outMicros }) => [inMicros, outMicros]),
      )
    })
})

describe('CSV as people write it', () => {
  it('reads headings in any order, semicolons, a byte order mark, plain times', () => {
    expect(readCsvMarks('\uFEFFName;Start;End\r\nGate;1:02,5;1:10\r\n', P30, HOUR).marks).toEqual([
      { inMicros: 62_500_000, outMicros: 70_000_000, label: 'Gate' },
    ])
    expect(
      readCsvMarks('12.5,first\n1:00:00.25,second\n00:00:20:15,third', P30, 2 * HOUR).marks.map((m) => m.inMicros),
    ).toEqual([12_500_000, 20_500_000, 3_600_250_000])
    expect(parseTime('90', P30)).toBe(90_000_000)
    expect(parseTime('1:90', P30)).toBeNull()
  })

  it('says by line what it could not read, and reads the rest', () => {
    const { marks, problems } = readCsvMarks(
      'time,end,label\n1,2,good\nsoon,3,bad\n,4,empty\n9,3,backwards\n7200,,late\n5,,also good',
      P30,
      HOUR,
    )
    expect(marks.map((m) => m.label)).toEqual(['good', 'also good'])
    expect(problems.map((p) => [p.line, p.reason])).toEqual([
      [3, 'bad-time'],
      [4, 'no-time'],
      [5, 'ends-before-start'],
      [6, 'beyond-recording'],
    ])
  })
})

describe('WebVTT as others write it', () => {
  it('passes over notes and styles, takes tags off, says what is broken', () => {
    const text =
      'WEBVTT - chapters\n\nNOTE nothing --> here\n\nSTYLE\n::cue { color: red }\n\n1\n00:01.000 --> 00:02.000 align:start\n<v Wren>Up &amp; away</v>\nsecond line\n\n00:99.000 --> 00:03.000\nbad\n\n00:00:05.000 --> 00:00:04.000\nbackwards\n'
    const { marks, problems } = readVttMarks(text, HOUR)
    expect(marks).toEqual([{ inMicros: 1_000_000, outMicros: 2_000_000, label: 'Up & away second line' }])
    expect(problems.map((p) => [p.line, p.reason])).toEqual([
      [13, 'bad-time'],
      [16, 'ends-before-start'],
    ])
    expect(readVttMarks('1\n00:00:01,000 --> 00:00:02,000\nsubtitles of another kind', HOUR).problems[0]).toMatchObject(
      { line: 1, reason: 'not-this-format' },
    )
  })
})

describe('EDL as others write it', () => {
  const list = [
    'TITLE: TEA TENT',
    'FCM: NON-DROP FRAME',
    '',
    '001  AX       AA/V  C        01:00:10:00 01:00:20:15 01:00:00:00 01:00:10:15',
    '* FROM CLIP NAME: THE GATE',
    '* LOC: 01:00:04:00 GREEN   LIFT OFF',
    '002  REEL7    V     D    024 01:01:00:00 01:01:05:00 01:00:10:15 01:00:15:15',
    'M2   REEL7        060.0                01:01:00:00',
    '003  AX       V     C        rubbish',
    'what is this',
  ].join('\r\n')

  it('takes an hour off source times that begin there, reads locators, says what is broken', () => {
    const { marks, problems } = readEdlMarks(list, P30, 600_000_000)
    expect(marks).toEqual([
      { inMicros: 10_000_000, outMicros: 20_500_000, label: 'THE GATE' },
      { inMicros: 14_000_000, outMicros: null, label: 'LIFT OFF' },
      { inMicros: 60_000_000, outMicros: 65_000_000, label: 'REEL7' },
    ])
    expect(problems.map((p) => [p.line, p.reason])).toEqual([
      [9, 'not-this-format'],
      [10, 'not-this-format'],
    ])
  })
})

describe('hostile files', () => {
  const readers = [
    (t: string) => readCsvMarks(t, P30, HOUR),
    (t: string) => readVttMarks(t, HOUR),
    (t: string) => readEdlMarks(t, P30, HOUR),
  ]

  it('that are far too large are refused before they are read', () => {
    const huge = 'WEBVTT\n'.padEnd(5_000_001, 'x')
    for (const read of readers)
      expect(read(huge)).toEqual({ marks: [], problems: [{ line: 0, reason: 'too-large', text: '' }] })
  })

  it('of millions of half tags, cues or blanks are read as fast as others are', () => {
    expect(readVttMarks(`WEBVTT\n\n00:01.000 --> 00:02.000\n${'<'.repeat(4_900_000)}\n`, HOUR).marks).toHaveLength(1)
    expect(readVttMarks(`WEBVTT\n\n${'1 --> 2\n\n'.repeat(400_000)}`, HOUR).marks).toEqual([])
    expect(readEdlMarks(`001 AX V C ${' '.repeat(2_000_000)}x\n`.repeat(2), P30, HOUR).marks).toEqual([])
  })

  it(`of noise end in problems, never in an exception, a negative time or a label of many lines (seed ${SEED})`, () => {
    const random = seeded(SEED)
    const pieces = [
      'WEBVTT',
      '\n',
      '\r\n',
      '00:00:01.000',
      ' --> ',
      '001  AX V C ',
      '01:00:00:00 ',
      '"',
      ',',
      ';',
      '\t',
      '* LOC: ',
      '\u0000',
      '<b>',
      '&lt;',
      '=1+1',
      '-5',
      '1e99',
      '99:99',
      'NaN',
      '\u202e',
    ]
    for (let i = 0; i < 400; i++) {
      const text = Array.from({ length: random.integer(1, 60) }, () => random.pick(pieces)).join('')
      for (const read of readers)
        for (const { inMicros, outMicros, label } of read(text).marks) {
          expect(Number.isInteger(inMicros) && inMicros >= 0 && inMicros < HOUR).toBe(true)
          expect(outMicros === null || (outMicros > inMicros && outMicros <= HOUR)).toBe(true)
          expect(label).not.toMatch(/\n/)
        }
    }
  })

  it('of too many marks are cut off at a limit, and say so', () => {
    const { marks, problems } = readCsvMarks(Array.from({ length: 2100 }, (_, i) => `${i},m${i}`).join('\n'), P30, HOUR)
    expect(marks).toHaveLength(2000)
    expect(problems).toHaveLength(100)
    expect(problems[0]).toMatchObject({ line: 2001, reason: 'too-many' })
  })
})

describe('chapters in a file', () => {
  const reader = (bytes: Uint8Array) => (offset: number, length: number) =>
    Promise.resolve(bytes.slice(offset, offset + length))

  const bytesOf = (text: string) => [...new TextEncoder().encode(text)]
  const uint = (value: number, length: number) =>
    Array.from({ length }, (_, i) => Math.floor(value / 256 ** (length - 1 - i)) % 256)
  const box = (type: string, ...content: number[][]) => [
    ...uint(8 + content.flat().length, 4),
    ...bytesOf(type),
    ...content.flat(),
  ]
  /** An EBML element with a four-byte size. */
  const element = (id: number[], ...content: number[][]) => [
    ...id,
    0x10,
    ...uint(content.flat().length, 3),
    ...content.flat(),
  ]

  it('of MP4 are read from the chapter list box, wherever the index lies', async () => {
    const chapter = (seconds: number, title: string) => [
      ...uint(seconds * 10_000_000, 8),
      bytesOf(title).length,
      ...bytesOf(title),
    ]
    const list = box('chpl', [1, 0, 0, 0, 0, 0, 0, 0, 2], chapter(4, 'Höhenflug'), chapter(1, 'Start'))
    const file = Uint8Array.from([
      ...box('ftyp', bytesOf('isom')),
      ...box('mdat', uint(7, 300)),
      ...box('moov', box('mvhd', uint(0, 20)), box('udta', list)),
    ])
    expect(await chaptersInFile(reader(file), file.length)).toEqual([
      { inMicros: 1_000_000, outMicros: null, label: 'Start' },
      { inMicros: 4_000_000, outMicros: null, label: 'Höhenflug' },
    ])
    for (let cut = 1; cut < file.length; cut += 7)
      expect(Array.isArray(await chaptersInFile(reader(file.subarray(0, cut)), cut))).toBe(true)
  })

  it('of Matroska are read also from behind the clusters; hidden ones are left out', async () => {
    const atom = (from: number, to: number, title: string, hidden = 0) =>
      element(
        [0xb6],
        element([0x91], uint(from * 1e9, 8)),
        element([0x92], uint(to * 1e9, 8)),
        element([0x98], [hidden]),
        element([0x80], element([0x85], bytesOf(title))),
      )
    const chapters = element(
      [0x10, 0x43, 0xa7, 0x70],
      element([0x45, 0xb9], atom(0, 4, 'Winch'), atom(4, 8, 'Secret', 1), atom(8, 12, 'Glide')),
    )
    const cluster = element([0x1f, 0x43, 0xb6, 0x75], uint(0, 500))
    const seekLength = element(
      [0x11, 0x4d, 0x9b, 0x74],
      element([0x4d, 0xbb], element([0x53, 0xab], [0x10, 0x43, 0xa7, 0x70]), element([0x53, 0xac], uint(0, 4))),
    ).length
    const seekHead = element(
      [0x11, 0x4d, 0x9b, 0x74],
      element(
        [0x4d, 0xbb],
        element([0x53, 0xab], [0x10, 0x43, 0xa7, 0x70]),
        element([0x53, 0xac], uint(seekLength + cluster.length, 4)),
      ),
    )
    const file = Uint8Array.from([
      ...element([0x1a, 0x45, 0xdf, 0xa3], uint(0, 10)),
      ...element([0x18, 0x53, 0x80, 0x67], seekHead, cluster, chapters),
    ])
    expect(await chaptersInFile(reader(file), file.length)).toEqual([
      { inMicros: 0, outMicros: 4_000_000, label: 'Winch' },
      { inMicros: 8_000_000, outMicros: 12_000_000, label: 'Glide' },
    ])
  })

  it(`that is noise, or cut off anywhere, are none (seed ${SEED})`, async () => {
    const random = seeded(SEED)
    const start = Uint8Array.from([
      0x1a, 0x45, 0xdf, 0xa3, 0x84, 1, 2, 3, 4, 0x18, 0x53, 0x80, 0x67, 0x01, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff,
    ])
    const moov = Uint8Array.from([
      0, 0, 0, 40, 109, 111, 111, 118, 0, 0, 0, 32, 117, 100, 116, 97, 0, 0, 0, 24, 99, 104, 112, 108,
    ])
    for (let i = 0; i < 300; i++) {
      const head = random.pick([start, moov, new Uint8Array()])
      const bytes = Uint8Array.from({ length: random.integer(0, 300) }, (_, n) => head[n] ?? random.integer(0, 255))
      for (const m of await chaptersInFile(reader(bytes), bytes.length)) expect(m.inMicros).toBeGreaterThanOrEqual(0)
    }
  })
})
