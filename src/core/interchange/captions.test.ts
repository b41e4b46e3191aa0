import { spawnSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, test } from 'vitest'
import { readCaptions, type ReadCue } from './captionFile'
import { writeSubRip, writeWebVtt } from './captionText'

const bytes = (text: string) => new TextEncoder().encode(text)
const utf16 = (text: string, mark: boolean, bigEndian = false) => {
  const out = new Uint8Array((text.length + (mark ? 1 : 0)) * 2)
  const view = new DataView(out.buffer)
  ;[...(mark ? '\uFEFF' : ''), ...text].forEach((c, i) => view.setUint16(i * 2, c.charCodeAt(0), !bigEndian))
  return out
}
const read = async (file: Uint8Array): Promise<ReadCue[]> => {
  const found = await readCaptions(file)
  if (!found.ok) throw new Error(found.reason)
  return found.cues
}

const VTT =
  'WEBVTT\n\n00:00:01.000 --> 00:00:02.500\n<v Wren>Über den Grat &amp; weiter\n\n00:05.000 --> 00:06.000 align:start\nLift!\n'
const SRT =
  '1\r\n00:00:01,000 --> 00:00:02,500\r\nÜber den Grat\r\nund weiter\r\n\r\n2\r\n00:00:05,000 --> 00:00:06,000\r\n<i>Lift!</i>\r\n'

describe('captions made elsewhere', () => {
  test('WebVTT and SubRip are read: times, text, who speaks', async () => {
    expect(await read(bytes(VTT))).toEqual([
      { fromMicros: 1e6, toMicros: 2.5e6, text: 'Über den Grat & weiter', voice: 'Wren', words: [] },
      { fromMicros: 5e6, toMicros: 6e6, text: 'Lift!', voice: null, words: [] },
    ])
    expect((await read(bytes(SRT))).map((c) => [c.fromMicros, c.toMicros, c.text])).toEqual([
      [1e6, 2.5e6, 'Über den Grat\nund weiter'],
      [5e6, 6e6, 'Lift!'],
    ])
  })

  test('a voice without a name is nobody', async () => {
    expect(
      await read(bytes('WEBVTT\n\n00:01.000 --> 00:02.000\n<v>Lift!\n\n00:03.000 --> 00:04.000\n<v >Again\n')),
    ).toMatchObject([
      { text: 'Lift!', voice: null },
      { text: 'Again', voice: null },
    ])
  })

  test('in every encoding that people have', async () => {
    const windows = Uint8Array.from(SRT, (c) => c.charCodeAt(0))
    for (const file of [
      bytes(SRT),
      bytes(`\uFEFF${SRT}`),
      utf16(SRT, true),
      utf16(SRT, true, true),
      utf16(SRT, false),
      windows,
    ])
      expect((await read(file))[0]?.text).toBe('Über den Grat\nund weiter')
  })

  test('words that are timed keep their times', async () => {
    const [cue] = await read(bytes('WEBVTT\n\n00:01.000 --> 00:03.000\nStay <00:01.500>low, <00:02.000>stay low\n'))
    expect(cue?.words).toEqual([
      { text: 'Stay', fromMicros: 1e6, toMicros: 1.5e6 },
      { text: 'low,', fromMicros: 1.5e6, toMicros: 2e6 },
      { text: 'stay', fromMicros: 2e6, toMicros: 2.5e6 },
      { text: 'low', fromMicros: 2.5e6, toMicros: 3e6 },
    ])
  })

  test('what is wrong is told by line, and the rest is read in order', async () => {
    const found = await readCaptions(
      bytes(
        'WEBVTT\n\n00:05.000 --> 00:07.000\nlater\n\n00:01.000 --> 00:02.000\nearlier\n\n00:09.000 --> 00:08.000\nbackwards\n\nsoon --> 1\nnever\n\n00:06.000 --> 00:08.000\nover it\n\n00:07.500 --> 00:09.000\nand over that\n',
      ),
    )
    expect(found.ok && found.cues.map((c) => c.text)).toEqual(['earlier', 'later', 'over it', 'and over that'])
    expect(found.problems).toEqual([
      { line: 6, reason: 'out-of-order' },
      { line: 9, reason: 'ends-before-start' },
      { line: 12, reason: 'bad-time' },
      { line: 18, reason: 'overlaps' },
    ])
    const srt = await readCaptions(
      bytes('1\n00:00:01,000 -> 00:00:02,000\nlost\n\n2\n00:00:03,000 --> 00:00:04,000\nkept\n'),
    )
    expect(srt.ok && srt.cues.map((c) => c.text)).toEqual(['kept'])
    expect(srt.problems).toEqual([{ line: 2, reason: 'bad-time' }])
  })

  test('hostile files do no harm: tags are dropped, huge lines cut, millions refused, noise refused', async () => {
    const [cue] = await read(
      bytes('WEBVTT\n\n00:01.000 --> 00:02.000\n<script>alert(1)</script><img src=x onerror=alert(1)>hello\n'),
    )
    expect(cue?.text).not.toMatch(/[<>]/)
    const long = await readCaptions(bytes(`WEBVTT\n\n00:01.000 --> 00:02.000\n${'lift '.repeat(200_000)}\n`))
    expect(long.ok && long.cues[0]?.text.length).toBeLessThanOrEqual(2000)
    expect(long.problems).toContainEqual({ line: 0, reason: 'too-long' })
    const many = bytes(`WEBVTT\n\n${'00:01.000 --> 00:02.000\nx\n\n'.repeat(30_000)}`)
    expect(await readCaptions(many)).toMatchObject({ ok: false, reason: 'too-many' })
    expect(await readCaptions(new Uint8Array(13_000_000))).toMatchObject({ ok: false, reason: 'too-large' })
    expect(await readCaptions(bytes('just a shopping list'))).toMatchObject({ ok: false, reason: 'not-captions' })
    expect(await readCaptions(Uint8Array.from({ length: 5000 }, (_, i) => (i * 7919) & 255))).toMatchObject({
      ok: false,
    })
    expect(
      await readCaptions(bytes('WEBVTT\n\n99999999999999999999:00:00.000 --> 99999999999999999999:00:01.000\nx\n')),
    ).toMatchObject({ ok: false })
  })
})

test('marks within marks, deeper than anybody writes them, lose nothing of what is said', async () => {
  const [cue] = await read(bytes(`WEBVTT\n\n00:01.000 --> 00:02.000\n${'<b>'.repeat(5000)}Lift!`))
  expect(cue?.text).toBe('Lift!')
  expect(await readCaptions(bytes(`WEBVTT\n\n00:01.000 --> 00:02.000\n${'<b>'.repeat(3_000_000)}Lift!`))).toMatchObject(
    { ok: false, reason: 'not-captions' },
  )
})

describe('captions that are written', () => {
  const cues = [
    { fromMicros: 400_000, toMicros: 1_900_500, text: 'Lift & <glide>', voice: 'Wren' },
    { fromMicros: 2_000_000, toMicros: 3_661_234_000, text: 'two\n\nlines', voice: null },
  ]

  test('come back the same', async () => {
    for (const text of [
      writeWebVtt(cues),
      writeSubRip(cues.map((c) => ({ ...c, text: c.text.replace(/[<>]/g, '') }))),
    ]) {
      const back = await read(bytes(text))
      expect(back.map((c) => [c.fromMicros, c.toMicros])).toEqual([
        [400_000, 1_901_000],
        [2_000_000, 3_661_234_000],
      ])
      expect(back[0]?.text).toMatch(/^Lift & /)
      expect(back[1]?.text).toBe('two\nlines')
    }
    expect((await read(bytes(writeWebVtt(cues))))[0]).toMatchObject({ text: 'Lift & <glide>', voice: 'Wren' })
  })

  test('are read by ffmpeg with the same times', () => {
    const folder = mkdtempSync(join(tmpdir(), 'brimble-captions-'))
    for (const [name, text] of [
      ['a.vtt', writeWebVtt(cues)],
      ['a.srt', writeSubRip(cues)],
    ] as const) {
      writeFileSync(join(folder, name), text)
      const { stdout } = spawnSync('ffprobe', [
        '-v',
        'error',
        '-show_entries',
        'packet=pts_time,duration_time',
        '-of',
        'csv=p=0',
        join(folder, name),
      ])
      const times = stdout
        .toString()
        .trim()
        .split('\n')
        .map((l) => l.split(',').slice(0, 2).map(Number))
      expect(times).toEqual([
        [0.4, 1.501],
        [2, 3659.234],
      ])
    }
  })
})
