// Rows that need no interface, by the engine of `npm run render`: words over a blurred backdrop beside ffmpeg, the
// table of layouts, shapes and sources, and what a minute and ten of them take of memory.
import { existsSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { root } from '../scripts/commands.mjs'
import { watchMemory } from '../tests/support/tabMemory.mjs'
import { openEngine } from '../unattended/engine.mjs'
import { ffmpeg, made, median, processorSeconds } from './measure.mjs'

const ROUNDS = Number(process.env.ROUNDS ?? 3)
const AT = '2026-11-24T10:00:00.000Z'
const record = (id) => ({ schemaVersion: 1, createdAt: AT, updatedAt: AT, deletedAt: null, id })
const TAGS = ['-pix_fmt', 'yuv420p', '-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709']

const SHAPES = {
  tall: { id: 'tall', width: 1080, height: 1920 },
  portrait: { id: 'portrait', width: 1080, height: 1350 },
  square: { id: 'square', width: 1080, height: 1080 },
  wide: { id: 'wide', width: 1920, height: 1080 },
}

/** Ten seconds out of the middle of the demo stream, as recorders of these sizes code it. */
const SOURCES = {
  '720p30': { width: 1280, height: 720, fps: 30, bitrate: '4M' },
  '1080p60': { width: 1920, height: 1080, fps: 60, bitrate: '8M' },
  '2160p30': { width: 3840, height: 2160, fps: 30, bitrate: '30M' },
}

const panel = (id, role, fit = 'fill') => ({
  kind: 'panel',
  id,
  role,
  fit,
  zoom: 1,
  turn: 0,
  flip: false,
  outline: null,
  opacity: 1,
})
const over = (tree, backdrop) => ({ tree, insets: [], backdrop })
const column = (...children) => ({
  kind: 'stack',
  axis: 'column',
  gap: 0,
  children: children.map(([extent, node]) => ({ extent, node })),
})
const weight = (w) => ({ kind: 'weight', weight: w })
const COLOUR = { kind: 'colour', colour: '#16181a' }
const BLUR = { kind: 'blur', role: 'whole', strength: 0.6, darken: 0.25 }

const LAYOUTS = {
  'two bands': over(
    column([{ kind: 'shaped', proportion: 16 / 9, most: 0.42 }, panel('a', 'face')], [weight(1), panel('b', 'game')]),
    COLOUR,
  ),
  'three bands': over(
    column([weight(1), panel('a', 'whole')], [weight(1), panel('b', 'face')], [weight(1), panel('c', 'game')]),
    COLOUR,
  ),
  'over a blur': over(panel('a', 'whole', 'whole'), BLUR),
}

/** The recording by that name, made when it is not there. */
export function makeSource(name, seconds = 10) {
  const { width, height, fps, bitrate } = SOURCES[name]
  const file = made(`engine-${name}-${seconds}.mp4`)
  if (existsSync(file)) return file
  const ten = seconds > 10 ? makeSource(name) : null
  if (ten) ffmpeg(['-stream_loop', String(seconds / 10 - 1), '-i', ten, '-c', 'copy', file])
  else
    ffmpeg([
      '-ss',
      '12',
      '-t',
      '10',
      '-i',
      join(root, 'public/demo/ridge-cup-stream.mp4'),
      '-vf',
      `scale=${width}:${height}`,
      '-r',
      String(fps),
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-b:v',
      bitrate,
      '-g',
      String(fps * 2),
      ...TAGS,
      '-c:a',
      'aac',
      '-b:a',
      '160k',
      file,
    ])
  return file
}

/** An edit of all of a source, as the text of a file. */
function editOf({ source, file, seconds, arrangement, shapes, words = {} }) {
  const { width, height, fps } = SOURCES[source]
  const region = (id, role, x, y, w, h) => ({
    id,
    role,
    name: role,
    bounds: { x: x / 1920, y: y / 1080, width: w / 1920, height: h / 1080 },
  })
  return JSON.stringify({
    brimble: 'bundle',
    version: 1,
    edits: [
      {
        highlight: {
          ...record('h'),
          name: `${source} ${shapes.join()}`,
          shapes: shapes.map((shape) => SHAPES[shape]),
          passages: [
            { id: 'p', recordingId: 'r', inMicros: 0, outMicros: seconds * 1_000_000, setupId: 's', layoutId: 'l' },
          ],
          words,
          output: {
            size: 'shape',
            frameRate: { num: 30, den: 1 },
            quality: 'standard',
            videoBitrate: 8_000_000,
            captions: 'picture',
          },
        },
        setups: [
          {
            ...record('s'),
            name: 'Evening',
            ownedBy: 'h',
            regions: [region('f', 'face', 1400, 756, 480, 270), region('g', 'game', 460, 30, 840, 1020)],
          },
        ],
        layouts: [{ ...record('l'), name: 'Layout', ownedBy: 'h', arrangement }],
        recordings: [
          {
            ...record('r'),
            name: source,
            fileName: file.split('/').at(-1),
            sizeBytes: statSync(file).size,
            recordedAt: AT,
            durationMicros: seconds * 1_000_000,
            originMicros: 0,
            video: {
              width,
              height,
              rotation: 0,
              frameRate: { num: fps, den: 1 },
              variableFrameRate: false,
              firstFrameMicros: 0,
              codec: 'H.264',
            },
            sound: { codec: 'AAC', sampleRate: 48000, channels: 2, startMicros: 0 },
            source: 'kept',
          },
        ],
      },
    ],
  })
}

/** What it took, all files together: `{ tookMs, frames, stages }`. */
async function render(engine, job) {
  const session = await engine.session()
  try {
    const { highlights, refused } = await session.plan(
      { name: 'bench.brimble.json', mimeType: 'application/json', buffer: Buffer.from(editOf(job)) },
      {},
    )
    if (refused.length > 0) throw new Error(JSON.stringify(refused))
    const [{ at, files, needs }] = highlights
    const made = []
    await session.render(
      at,
      files.map((f) => f.id),
      needs.map(({ id }) => ({ id, path: job.file })),
      async (told) => void (told.kind !== 'progress' && made.push(told)),
    )
    for (const told of made) {
      if (told.kind !== 'finished') throw new Error(JSON.stringify(told))
      await session.forget(told.id)
    }
    return { ...made[0], tookMs: made.reduce((sum, { tookMs }) => sum + tookMs, 0) }
  } finally {
    await session.close()
  }
}

const LINES = [
  'Turning in under the first cloud',
  'Two up, and it is getting better',
  'Stay with it, stay with it',
  'There is the ridge, right on the nose',
  'Last gate, no lift',
]

/** A title all the time and a caption every two seconds. */
function someWords() {
  const style = (size) => ({
    font: 'Instrument Sans',
    weight: 700,
    size,
    capitals: false,
    colour: '#ffffff',
    outline: { colour: '#000000', width: 0.08 },
    shadow: null,
    block: { behind: 'line', colour: '#16181a', opacity: 0.6, radius: 0.2 },
    align: 'middle',
    place: 'middle',
    lines: 2,
    entry: 'none',
    emphasis: { kind: 'none' },
  })
  return {
    cues: LINES.map((text, n) => ({
      id: `c${n}`,
      recordingId: 'r',
      fromMicros: n * 2_000_000,
      toMicros: (n + 1) * 2_000_000 - 100_000,
      text,
    })),
    captions: { shown: true, style: style(0.058), speakers: 'none' },
    titles: [{ id: 't', text: 'Last gate, no lift', fromMicros: null, toMicros: null, style: style(0.09) }],
  }
}

/**
 * The same by ffmpeg's own filters: the picture over a blurred, darkened copy of itself, a title, captions burnt in.
 */
function ffmpegWords(source, folder) {
  const time = (s) => `00:00:${s.toFixed(3).padStart(6, '0').replace('.', ',')}`
  const srt = join(folder, 'lines.srt')
  writeFileSync(srt, LINES.map((text, n) => `${n + 1}\n${time(n * 2)} --> ${time(n * 2 + 1.9)}\n${text}\n`).join('\n'))
  const graph = `[0:v]fps=30,split[a][b];[a]scale=-2:1920,crop=1080:1920,boxblur=40:2,eq=brightness=-0.1[back];[b]scale=1080:-2[front];[back][front]overlay=0:(H-h)/2,drawtext=text='Last gate, no lift':fontsize=97:fontcolor=white:borderw=6:box=1:boxcolor=black@0.6:x=(w-tw)/2:y=420,subtitles=${srt}:force_style='FontSize=12,Outline=1,MarginV=60'`
  const started = performance.now()
  ffmpeg([
    '-i',
    source,
    '-filter_complex',
    graph,
    '-c:v',
    'libx264',
    '-preset',
    'veryfast',
    '-b:v',
    '8M',
    '-c:a',
    'aac',
    '-b:a',
    '160k',
    made('engine-words-ffmpeg.mp4'),
  ])
  return (performance.now() - started) / 1000
}

async function withEngine(work) {
  const out = mkdtempSync(join(tmpdir(), 'brimble-bench-'))
  const engine = await openEngine({ out })
  const memory = watchMemory(await engine.browserSession())
  try {
    return await work(engine, memory, out)
  } finally {
    memory.stop()
    await engine.close()
    rmSync(out, { recursive: true, force: true })
  }
}

/** Words over a blurred backdrop, beside ffmpeg, in turns. */
export const words = () =>
  withEngine(async (engine, memory, folder) => {
    const file = makeSource('1080p60')
    const job = {
      source: '1080p60',
      file,
      seconds: 10,
      arrangement: LAYOUTS['over a blur'],
      shapes: ['tall'],
      words: someWords(),
    }
    const [ours, theirs] = [[], []]
    for (let round = 0; round < ROUNDS; round++) {
      theirs.push(ffmpegWords(file, folder))
      const { tookMs, stages } = await render(engine, job)
      ours.push(tookMs / 1000)
      process.stdout.write(
        `  round ${round + 1}: Brimble ${ours.at(-1).toFixed(2)} s (${shares(stages)}), ffmpeg ${theirs.at(-1).toFixed(2)} s\n`,
      )
    }
    return [
      { name: 'words-over-blur', seconds: median(ours), referenceSeconds: median(theirs), ...(await memory.peak()) },
    ]
  })

/** Frames a second and shares of decode, draw and encode for each layout, shape and source. */
export const table = () =>
  withEngine(async (engine, memory) => {
    const rows = []
    for (const source of Object.keys(SOURCES))
      for (const layout of Object.keys(LAYOUTS))
        for (const shape of ['tall', 'square', 'wide']) {
          const { tookMs, frames, stages } = await render(engine, {
            source,
            file: makeSource(source),
            seconds: 10,
            arrangement: LAYOUTS[layout],
            shapes: [shape],
          })
          process.stdout.write(
            `  | ${source} | ${layout} | ${shape} | ${((frames * 1000) / tookMs).toFixed(0)} | ${shares(stages)} |\n`,
          )
          rows.push(tookMs / 1000)
        }
    return [{ name: 'table', seconds: median(rows), referenceSeconds: NaN, ...(await memory.peak()) }]
  })

/** Three shapes in one go and one after the other, from two sources, in turns: what is shared is decoding and sound. */
export const shapes = () =>
  withEngine(async (engine, memory) => {
    const rows = []
    for (const source of ['1080p60', '2160p30']) {
      const job = { source, file: makeSource(source), seconds: 10, arrangement: LAYOUTS['two bands'] }
      const all = ['tall', 'portrait', 'square']
      const [together, apart] = [[], []]
      for (let round = 0; round < ROUNDS; round++) {
        const before = processorSeconds()
        const { tookMs, stages } = await render(engine, { ...job, shapes: all })
        const between = processorSeconds()
        together.push(tookMs / 1000)
        let sum = 0
        for (const shape of all) sum += (await render(engine, { ...job, shapes: [shape] })).tookMs / 1000
        apart.push(sum)
        process.stdout.write(
          `  ${source}, round ${round + 1}: in one go ${together.at(-1).toFixed(1)} s (${shares(stages)}; processors busy ${(between - before).toFixed(1)} s), one after the other ${sum.toFixed(1)} s (${(processorSeconds() - between).toFixed(1)} s)\n`,
        )
      }
      rows.push({
        name: `shapes, ${source}`,
        seconds: median(together),
        referenceSeconds: median(apart),
        ...(await memory.peak()),
      })
    }
    return rows
  })

/** Peak memory of a minute and of ten, each in a browser of its own, in turns: medians. */
export async function length() {
  const jobs = [60, 600].map((seconds) => ({ seconds, file: makeSource('1080p60', seconds), seen: [] }))
  for (let round = 0; round < ROUNDS; round++)
    for (const { seconds, file, seen } of jobs) {
      const row = await withEngine(async (engine, memory) => {
        const { tookMs } = await render(engine, {
          source: '1080p60',
          file,
          seconds,
          arrangement: LAYOUTS['two bands'],
          shapes: ['tall'],
        })
        return { seconds: tookMs / 1000, ...(await memory.peak()) }
      })
      process.stdout.write(
        `  round ${round + 1}, ${seconds / 60} min: ${row.seconds.toFixed(0)} s, ${row.ownMb.toFixed(0)} MB\n`,
      )
      seen.push(row)
    }
  return jobs.map(({ seconds, seen }) => {
    const middle = (of) => median(seen.map((row) => row[of]))
    return {
      name: `length-${seconds / 60}-min`,
      seconds: middle('seconds'),
      referenceSeconds: NaN,
      privateMb: middle('privateMb'),
      ownMb: middle('ownMb'),
      residentMb: middle('residentMb'),
    }
  })
}

function shares({ decodeMs, drawMs, encodeMs }) {
  const all = decodeMs + drawMs + encodeMs
  return [decodeMs, drawMs, encodeMs].map((ms) => `${Math.round((100 * ms) / all)} %`).join(' | ')
}
