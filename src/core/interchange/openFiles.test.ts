import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join as joinPath } from 'node:path'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { sampleEdit } from '../../../tests/support/edits'
import { usedSpans } from '../cut/usedSpans'
import { edit as editSchema, type Edit } from '../model/edit'
import type { SpeechOf } from '../sound/ducking'
import { readBackup } from './backup'
import { bundle, entryFor, readBundle, writeBundle } from './bundle'
import { writeEditList } from './editList'
import { readEdlMarks, writeEdlMarks } from './edlMarks'
import { ffmpegScript } from './ffmpeg/ffmpegScript'
import { timeline } from './otio/otioSchema'
import { readOtio } from './otio/readOtio'
import { writeOtio } from './otio/writeOtio'
import { readRackFile } from './rackFile'

const TALL = { id: 'tall', width: 1080, height: 1920 }

/** Three passages of the sample's recording: one with a strike, one at 150 %, joined by a dissolve and a push. */
function threePassages(): Edit {
  const edit = sampleEdit()
  const [p] = edit.highlight.passages
  if (!p) throw new Error('no passage')
  return editSchema.parse({
    ...edit,
    highlight: {
      ...edit.highlight,
      passages: [
        {
          ...p,
          id: 'a',
          inMicros: 2_000_000,
          outMicros: 6_000_000,
          strikes: [{ fromMicros: 3_000_000, toMicros: 3_500_000 }],
          join: { kind: 'dissolve', lengthMicros: 500_000, easing: 'even' },
        },
        {
          ...p,
          id: 'b',
          inMicros: 10_000_000,
          outMicros: 16_000_000,
          speedPercent: 150,
          join: { kind: 'push', direction: 'left', lengthMicros: 400_000, easing: 'soft' },
        },
        { ...p, id: 'c', inMicros: 20_000_000, outMicros: 22_000_000 },
      ],
    },
  })
}

describe('timelines', () => {
  it('are OpenTimelineIO objects, with a track for each panel, and come back as the very edit', () => {
    const edit = threePassages()
    const text = writeOtio(edit, TALL)
    const parsed = timeline.parse(JSON.parse(text))
    expect(parsed.tracks.children.map((t) => (t as { kind?: string }).kind)).toEqual(['Video', 'Video', 'Audio'])
    const read = readOtio(text)
    expect(read.ok && read.edit).toEqual(edit)
    expect(read.ok && read.cuts.map((c) => [c.inMicros, c.outMicros, c.speedPercent, c.join.kind])).toEqual([
      [2_000_000, 3_000_000, 100, 'cut'],
      [3_500_000, 6_000_000, 100, 'dissolve'],
      [10_000_000, 16_000_000, 150, 'push'],
      [20_000_000, 22_000_000, 100, 'cut'],
    ])
  })

  it('have titles and what is said as markers, over their time in the output', () => {
    const edit = threePassages()
    const cue = (fromMicros: number, toMicros: number, text: string) => ({
      id: text,
      recordingId: 'r',
      fromMicros,
      toMicros,
      text,
      words: [],
      speakerId: null,
    })
    const said = editSchema.parse({
      ...edit,
      highlight: {
        ...edit.highlight,
        words: {
          ...edit.highlight.words,
          cues: [
            cue(4_000_000, 5_000_000, 'Last gate'),
            cue(11_500_000, 13_000_000, 'no lift'),
            cue(30_000_000, 31_000_000, 'not in it'),
          ],
        },
      },
    })
    const { markers } = timeline.parse(JSON.parse(writeOtio(said, TALL))).tracks
    const captions = markers
      .filter((m) => m.color === 'CYAN')
      .map((m) => [
        m.name,
        m.marked_range.start_time.value / m.marked_range.start_time.rate,
        m.marked_range.duration.value / m.marked_range.duration.rate,
      ])
    // Half a second was struck out before the first; the second begins 1.5 s into a passage at one and a half times
    // the speed.
    expect(captions).toEqual([
      ['Last gate', expect.closeTo(1.5, 5), expect.closeTo(1, 5)],
      ['no lift', expect.closeTo(4.5, 5), expect.closeTo(1, 5)],
    ])
  })

  it('whose cuts somebody changed come back with the changed cuts, not as the edit they were', () => {
    const raw = JSON.parse(writeOtio(threePassages(), TALL)) as {
      tracks: { children: { children: { source_range?: { duration: { value: number } } }[] }[] }
    }
    const clip = raw.tracks.children[0]?.children[0]?.source_range
    if (!clip) throw new Error('no clip')
    clip.duration.value /= 2
    const read = readOtio(JSON.stringify(raw))
    expect(read.ok && read.edit).toBeNull()
    expect(read.ok && read.cuts[0]?.outMicros).toBe(2_500_000)
  })

  it('of other tools are read: one reference a clip, unknown effects, gaps; and what is none is refused', () => {
    const time = (value: number) => ({ OTIO_SCHEMA: 'RationalTime.1', rate: 25, value })
    const made = {
      OTIO_SCHEMA: 'Clip.1',
      name: 'x',
      source_range: { OTIO_SCHEMA: 'TimeRange.1', start_time: time(50), duration: time(100) },
      effects: [{ OTIO_SCHEMA: 'Effect.1', name: 'blur', strength: 3 }],
      media_reference: { OTIO_SCHEMA: 'ExternalReference.1', target_url: 'file:///media/cup/Ridge%20Cup.mp4' },
    }
    const others = {
      OTIO_SCHEMA: 'Timeline.1',
      name: 'Cup',
      tracks: {
        OTIO_SCHEMA: 'Stack.1',
        children: [{ OTIO_SCHEMA: 'Track.1', kind: 'Video', children: [{ OTIO_SCHEMA: 'Gap.1' }, made] }],
      },
    }
    expect(readOtio(JSON.stringify(others))).toMatchObject({
      ok: true,
      name: 'Cup',
      edit: null,
      cuts: [{ fileName: 'Ridge Cup.mp4', inMicros: 2_000_000, outMicros: 6_000_000, speedPercent: 100 }],
    })
    for (const [text, reason] of [
      ['{', 'not-json'],
      ['[]', 'not-a-timeline'],
      ['{"OTIO_SCHEMA":"Timeline.1","tracks":{"OTIO_SCHEMA":"Stack.1","children":[]}}', 'no-clips'],
    ] as const)
      expect(readOtio(text)).toEqual({ ok: false, reason })
  })
})

it('a cut list has an event a run, with its speed, and its events come back as marks', () => {
  const edit = threePassages()
  const text = writeEditList(edit)
  expect(text.match(/^\d{3} /gm)).toHaveLength(4)
  expect(text).toMatch(/^M2 {3}AX .* 090\.0/m)
  expect(text).toMatch(/^003 {2}AX {7}\S+ +D {4}030/m)
  const rate = edit.recordings[0]?.video.frameRate
  const { marks, problems } = readEdlMarks(text, rate ?? { num: 60, den: 1 }, 60_000_000)
  expect(problems.filter((p) => p.reason !== 'not-this-format')).toEqual([])
  expect(marks.map((m) => [m.inMicros, m.outMicros])).toEqual([
    [2_000_000, 3_000_000],
    [3_500_000, 6_000_000],
    [10_000_000, 16_000_000],
    [20_000_000, 22_000_000],
  ])
})

it('a cut list begins at one hour at every rate, and its record side adds up in frames', () => {
  const edit = threePassages()
  const [recording] = edit.recordings
  if (!recording) throw new Error('no recording')
  for (const [num, den] of [
    [24_000, 1001],
    [30_000, 1001],
    [25, 1],
    [60_000, 1001],
  ] as const) {
    const text = writeEditList({
      ...edit,
      recordings: [{ ...recording, video: { ...recording.video, frameRate: { num, den } } }],
    })
    const events = [...text.matchAll(/^\d{3} .* (\S+) (\S+)\r$/gm)].map(([, from, to]) => [from, to])
    expect(events[0]?.[0], `${num}/${den}`).toBe('01:00:00:00')
    events.slice(1).forEach(([from], n) => expect(from).toBe(events[n]?.[1]))
  }
  expect(
    writeEdlMarks([{ inMicros: 0, outMicros: 1_001_000, label: 'Gate' }], 'Cup', { num: 24_000, den: 1001 }),
  ).toContain('00:00:00:00 00:00:01:00 01:00:00:00 01:00:01:00')
})

it('a cut list of what has less than a frame a second counts as most do', () => {
  const edit = threePassages()
  const [recording] = edit.recordings
  if (!recording) throw new Error('no recording')
  const slow = writeEditList({
    ...edit,
    recordings: [{ ...recording, video: { ...recording.video, frameRate: { num: 1, den: 1000 } } }],
  })
  expect(slow).toContain('001  AX       B     C        00:00:02:00 00:00:03:00 01:00:00:00 01:00:01:00')
})

describe('bundles', () => {
  it('come back with the very edits; newer ones and broken ones are refused with the reason', () => {
    const edit = threePassages()
    const part = { id: 'r', entry: entryFor('media', 0, 'ridge.mp4'), sizeBytes: 5, trimmed: true }
    const speechOf: SpeechOf = new Map([
      ['r' as Edit['recordings'][number]['id'], [{ fromMicros: 1_000_000, toMicros: 2_500_000 }]],
    ])
    expect(readBundle(writeBundle([edit], speechOf, [part]))).toEqual({
      ok: true,
      edits: [edit],
      carried: [part],
      speechOf,
    })
    const raw = JSON.parse(writeBundle([edit], new Map(), [part])) as Record<string, unknown>
    const refused = (change: object) => {
      const read = readBundle(JSON.stringify({ ...raw, ...change }))
      return read.ok ? null : read.reason
    }
    expect(refused({ version: 2 })).toBe('newer-version')
    expect(refused({ edits: [] })).toBe('not-a-bundle')
    expect(refused({ speech: [{ recordingId: 'r', stretches: [{ fromMicros: 'now', toMicros: 1 }] }] })).toBe(
      'not-a-bundle',
    )
    expect(refused({ edits: [{ ...edit, recordings: [] }] })).toBe('bad-edit')
    const [passage] = edit.highlight.passages
    if (!passage) throw new Error('no passage')
    const withPassages = (...passages: object[]) => ({
      edits: [{ ...edit, highlight: { ...edit.highlight, passages } }],
    })
    expect(readBundle(JSON.stringify({ ...raw, ...withPassages(passage, passage) }))).toMatchObject({
      reason: 'bad-edit',
      detail: 'edit 1: highlight.passages: two have the same id',
    })
    expect(
      readBundle(
        JSON.stringify({ ...raw, ...withPassages({ ...passage, strikes: [{ fromMicros: 0, toMicros: 60_000_000 }] }) }),
      ),
    ).toMatchObject({ reason: 'bad-edit', detail: 'edit 1: passage 1: all of it is struck out' })
    expect(
      readBundle(JSON.stringify({ ...raw, edits: [{ ...edit, highlight: { ...edit.highlight, schemaVersion: 9 } }] })),
    ).toMatchObject({ reason: 'newer-version' })
    for (const entry of [
      '../etc/passwd',
      '/media/1.mp4',
      'media/../1.mp4',
      'media\\1.mp4',
      'files/a b.png',
      'bundle.json',
    ])
      expect(refused({ carried: [{ ...part, entry }] })).toBe('not-a-bundle')
    expect(readBundle('nonsense')).toMatchObject({ ok: false, reason: 'not-json' })
  })

  it('and other files of ours that nest a hundred thousand deep are no such file', () => {
    const deep = `{"brimble":"bundle","version":1,"edits":${'['.repeat(100_000)}${']'.repeat(100_000)}}`
    expect(readBundle(deep)).toMatchObject({ ok: false, reason: 'not-json' })
    expect(readBackup(deep)).toMatchObject({ ok: false, reason: 'not-json' })
    expect(readOtio(deep)).toMatchObject({ ok: false, reason: 'not-json' })
    expect(readRackFile(deep)).toMatchObject({ ok: false, reason: 'not-json' })
    // Brackets in names are no nesting.
    const named = { ...threePassages(), highlight: { ...threePassages().highlight, name: `${'[{'.repeat(60)}\\"[` } }
    expect(readBundle(writeBundle([named], new Map()))).toMatchObject({ ok: true })
  })

  it('are described by the published JSON Schema', () => {
    const file = 'docs/schemas/bundle.schema.json'
    const schema = `${JSON.stringify(z.toJSONSchema(bundle.extend({ edits: z.array(editSchema) }), { io: 'input' }), null, 2)}\n`
    if (process.env.UPDATE_SCHEMAS) writeFileSync(file, schema)
    expect(readFileSync(file, 'utf8')).toBe(schema)
  })

  it('take of a recording what is used, with handles, joins and shots that play on, merged', () => {
    const edit = threePassages()
    expect(usedSpans([edit], 'r' as Edit['recordings'][number]['id'], 1_000_000)).toEqual([
      { fromMicros: 500_000, toMicros: 7_500_000 },
      { fromMicros: 8_100_000, toMicros: 17_900_000 },
      { fromMicros: 18_600_000, toMicros: 23_400_000 },
    ])
    expect(usedSpans([edit], 'other' as Edit['recordings'][number]['id'], 1_000_000)).toEqual([])
  })
})

it('an ffmpeg script runs, and gives as many frames as the highlight has, whatever its recording is called', () => {
  const folder = mkdtempSync(joinPath(tmpdir(), 'brimble-script-'))
  const fileName = "it's $HOME; `x` %d.mp4"
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-f',
    'lavfi',
    '-i',
    'testsrc2=s=320x180:r=60:d=24',
    '-f',
    'lavfi',
    '-i',
    'sine=d=24',
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-pix_fmt',
    'yuv420p',
    '-c:a',
    'aac',
    joinPath(folder, fileName),
  ])
  const edit = threePassages()
  const [recording] = edit.recordings
  if (!recording) throw new Error('no recording')
  const shape = { id: 'tall', width: 108, height: 192 }
  const small: Edit = {
    ...edit,
    recordings: [
      { ...recording, fileName, video: { ...recording.video, width: 320, height: 180 }, durationMicros: 24_000_000 },
    ],
  }
  writeFileSync(joinPath(folder, 'make.sh'), ffmpegScript(small, shape, { num: 30, den: 1 }))
  execFileSync('sh', [joinPath(folder, 'make.sh'), folder, joinPath(folder, 'out.mp4')], { stdio: 'pipe' })
  const probed = JSON.parse(
    execFileSync('ffprobe', [
      '-v',
      'error',
      '-count_frames',
      '-show_streams',
      '-of',
      'json',
      joinPath(folder, 'out.mp4'),
    ]).toString(),
  ) as { streams: { codec_type: string; width?: number; height?: number; nb_read_frames: string }[] }
  // 3.5 s, 4 s (six at 150 %) and 2 s at 30 a second.
  expect(probed.streams.find((s) => s.codec_type === 'video')).toMatchObject({
    width: 108,
    height: 192,
    nb_read_frames: '285',
  })
  expect(probed.streams.some((s) => s.codec_type === 'audio')).toBe(true)
})
