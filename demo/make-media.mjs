// Draws and records the demo footage into public/demo. Needs ffmpeg and flite (Debian packages); run with `npm run
// demo:media`.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdirSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { GlobalFonts, createCanvas } from '@napi-rs/canvas'
import { drawCall, drawWebinar } from './draw/rooms.mjs'
import { drawDawn, drawDusk, drawWinch } from './draw/scenic.mjs'
import { drawStream } from './draw/stream.mjs'
import { scripts } from './script.mjs'
import { addBeeps, addCheer, addSpeech, mouthLevels, speak, wind, writeWav } from './sound.mjs'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const out = join(root, 'public', 'demo')
const limitBytes = 4_000_000
GlobalFonts.registerFromPath(
  join(root, 'node_modules/@fontsource-variable/instrument-sans/files/instrument-sans-latin-wght-normal.woff2'),
  'Demo Sans',
)

/** Draws every frame, pipes it to ffmpeg with the sound, and checks that the file keeps to the size limit. */
async function record({ name, width, height, fps, durationSeconds, samples, draw, crf, maxrate }) {
  const file = join(out, `${name}.mp4`)
  const wav = join(out, `${name}.wav`)
  writeWav(wav, samples)
  const canvas = createCanvas(width, height)
  const ctx = canvas.getContext('2d')
  const ffmpeg = spawn(
    'ffmpeg',
    [
      '-v',
      'error',
      '-y',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgba',
      '-s',
      `${width}x${height}`,
      '-r',
      String(fps),
      '-i',
      '-',
      '-i',
      wav,
      '-vf',
      'scale=out_color_matrix=bt709:out_range=tv,format=yuv420p',
      '-colorspace',
      'bt709',
      '-color_primaries',
      'bt709',
      '-color_trc',
      'bt709',
      '-color_range',
      'tv',
      '-c:v',
      'libx264',
      '-preset',
      'slow',
      '-profile:v',
      'high',
      '-crf',
      String(crf),
      '-maxrate',
      maxrate,
      '-bufsize',
      '3M',
      '-g',
      String(fps * 2),
      '-threads',
      '2',
      '-c:a',
      'aac',
      '-b:a',
      '80k',
      '-fflags',
      '+bitexact',
      '-flags:v',
      '+bitexact',
      '-flags:a',
      '+bitexact',
      '-movflags',
      '+faststart',
      file,
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  )
  for (let n = 0; n < durationSeconds * fps; n++) {
    draw(ctx, n / fps, n)
    if (!ffmpeg.stdin.write(canvas.data())) await once(ffmpeg.stdin, 'drain')
  }
  ffmpeg.stdin.end()
  const [code] = await once(ffmpeg, 'close')
  rmSync(wav)
  if (code !== 0) throw new Error(`ffmpeg ended with ${code} for ${name}`)
  const { size } = statSync(file)
  if (size > limitBytes) throw new Error(`${name}.mp4 is ${size} bytes, over the limit of ${limitBytes}`)
  process.stdout.write(`${name}.mp4 ${(size / 1e6).toFixed(2)} MB\n`)
}

const stamp = (s) => new Date(Math.round(s * 1000)).toISOString().slice(11, 23)

function writeVtt(name, spoken) {
  const cues = spoken.map((l) => `${stamp(l.from)} --> ${stamp(l.to)}\n<v ${l.speaker}>${l.text}`)
  writeFileSync(join(out, `${name}.vtt`), `WEBVTT\n\n${cues.join('\n\n')}\n`)
}

async function makeStream() {
  const name = 'ridge-cup-stream'
  const { durationSeconds, lines } = scripts[name]
  const spoken = speak(lines)
  const samples = wind(durationSeconds, 7)
  addBeeps(samples, 16.8, 19.2)
  addBeeps(samples, 21.8, 25)
  addSpeech(samples, spoken)
  addCheer(samples, 19.6, 22.2, 11)
  addCheer(samples, 33.6, 36.4, 12, 0.06)
  writeVtt(name, spoken)
  const mouth = mouthLevels(spoken, durationSeconds, 60)
  await record({
    name,
    width: 1920,
    height: 1080,
    fps: 60,
    durationSeconds,
    samples,
    crf: 27,
    maxrate: '650k',
    draw: (ctx, t, n) => drawStream(ctx, t, mouth[n]),
  })
}

async function makeCall() {
  const name = 'open-day-call'
  const { durationSeconds, lines } = scripts[name]
  const spoken = speak(lines)
  const samples = wind(durationSeconds, 21, 0.006)
  addSpeech(samples, spoken)
  writeVtt(name, spoken)
  const mouths = Object.fromEntries(
    ['Odo', 'Wren'].map((who) => [
      who,
      mouthLevels(
        spoken.filter((l) => l.speaker === who),
        durationSeconds,
        30,
      ),
    ]),
  )
  await record({
    name,
    width: 1280,
    height: 720,
    fps: 30,
    durationSeconds,
    samples,
    crf: 24,
    maxrate: '600k',
    draw: (ctx, t, n) => drawCall(ctx, t, { Odo: mouths.Odo[n], Wren: mouths.Wren[n] }),
  })
}

async function makeWebinar() {
  const name = 'reading-thermals-webinar'
  const { durationSeconds, lines } = scripts[name]
  const spoken = speak(lines)
  const samples = wind(durationSeconds, 31, 0.005)
  addSpeech(samples, spoken)
  writeVtt(name, spoken)
  const mouth = mouthLevels(spoken, durationSeconds, 30)
  await record({
    name,
    width: 1280,
    height: 720,
    fps: 30,
    durationSeconds,
    samples,
    crf: 23,
    maxrate: '600k',
    draw: (ctx, t, n) => drawWebinar(ctx, t, mouth[n]),
  })
}

async function makeScenic() {
  const shots = [
    { name: 'field-dawn', durationSeconds: 8, draw: drawDawn, seed: 41 },
    { name: 'field-winch', durationSeconds: 10, draw: drawWinch, seed: 42 },
    { name: 'field-dusk', durationSeconds: 12, draw: drawDusk, seed: 43 },
  ]
  for (const shot of shots)
    await record({
      ...shot,
      width: 1920,
      height: 1080,
      fps: 30,
      samples: wind(shot.durationSeconds, shot.seed, 0.06),
      crf: 24,
      maxrate: '1100k',
    })
}

mkdirSync(out, { recursive: true })
await makeStream()
await makeCall()
await makeWebinar()
await makeScenic()
