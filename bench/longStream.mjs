// A stream of hours with moments planted in it, made by a script: three scenes, game noise, talk by two voices.
import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { prose, RATE, speak } from '../tests/quality/spokenText.mjs'
import { ffmpeg, made } from './measure.mjs'

const FPS = 60
const SCENE_SECONDS = 60

/** Numbers 0..1, the same every time. */
function seeded(seed) {
  let state = seed
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
}

/** What is behind the camera picture in each scene, and where the picture lies. */
const SCENES = [
  { game: 'gradients=s=1920x1080:c0=0x2a4858:c1=0x7fb069:c2=0xe6aa68:n=3:speed=0.02:seed=3', x: 40, y: 700 },
  { game: 'cellauto=s=480x270:rule=110:random_seed=4:full=1', x: 1400, y: 60 },
  { game: 'mandelbrot=s=320x180:start_scale=2:end_scale=0.4', x: 1400, y: 700 },
]

function sceneFile(n) {
  const out = made(`stream-scene-${n}.mp4`)
  if (existsSync(out)) return out
  const { game, x, y } = SCENES[n]
  const camera = `[1:v]crop=636:356:2:182,scale=480:270,setsar=1,fps=${FPS},drawbox=c=white:t=4[c]`
  const drawn = `[0:v]scale=1920:1080:flags=bilinear,fps=${FPS},drawbox=x=760:y=20:w=400:h=60:c=black@0.6:t=fill[g];${camera};[g][c]overlay=${x}:${y},format=yuv420p[v]`
  const input = `${game}:r=${FPS}`
  ffmpeg([
    ...['-f', 'lavfi', '-t', String(SCENE_SECONDS), '-i', input],
    ...['-stream_loop', '-1', '-t', String(SCENE_SECONDS), '-i', 'public/demo/open-day-call.mp4'],
    ...['-filter_complex', drawn, '-map', '[v]', '-t', String(SCENE_SECONDS)],
    ...[
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-b:v',
      '3M',
      '-g',
      String(2 * FPS),
      '-video_track_timescale',
      '60000',
    ],
    out,
  ])
  return out
}

/** Sentences, each with its samples and the ends of its words, seconds from its start. */
function sentences() {
  const texts = prose()
    .filter((s) => s.length > 30 && s.length < 160)
    .slice(0, 60)
  return texts.map((text, n) => {
    const voice = n % 2 === 0 ? 'rms' : 'awb'
    const { pcm, words } = speak(`stream-${n}`, [text], voice, n % 2 === 0 ? 1 : 0.95)
    return { text, pcm, words }
  })
}

/**
 * Minutes of stream with `count` moments: a sentence, a crowd that roars, a shout, a sentence; quiet before and after.
 * Gives the file and the truth: where each moment begins and ends, and when each word is said, seconds.
 */
export function makeStream(name, minutes, count) {
  const [out, truthFile] = [made(`${name}.mp4`), made(`${name}.json`)]
  if (existsSync(out) && existsSync(truthFile)) return { file: out, truth: JSON.parse(readFileSync(truthFile, 'utf8')) }
  const random = seeded(20261201)
  const said = sentences()
  const pcm = new Int16Array(minutes * 60 * RATE)
  const noise = seeded(7)
  let low = 0
  for (let i = 0; i < pcm.length; i++) {
    low = 0.97 * low + 0.03 * (noise() - 0.5)
    pcm[i] = Math.round(low * 4500)
  }
  const [moments, words] = [[], []]
  const put = (samples, at, gain) => {
    const first = Math.round(at * RATE)
    for (let i = 0; i < samples.length && first + i < pcm.length; i++)
      pcm[first + i] = Math.max(-32768, Math.min(32767, pcm[first + i] + Math.round(samples[i] * 32767 * gain)))
    return at + samples.length / RATE
  }
  const say = (at, gain) => {
    const { pcm: samples, words: own } = said[Math.floor(random() * said.length)]
    words.push(...own.map(({ from, to }) => ({ from: at + from, to: at + to })))
    return put(samples, at, gain)
  }
  const roar = (at, seconds) => {
    const samples = Float32Array.from({ length: seconds * RATE }, (_, i) => {
      const t = i / RATE
      return (noise() - 0.5) * 0.9 * Math.min(1, 4 * t, 4 * (seconds - t)) + 0.1 * Math.sin(2 * Math.PI * 700 * t)
    })
    return put(samples, at, 0.8)
  }
  const due = Array.from({ length: count }, (_, n) => ((n + 0.3 + 0.5 * random()) * minutes * 60) / count)
  let t = 2
  while (t < minutes * 60 - 60) {
    if (due.length > 0 && t >= due[0]) {
      due.shift()
      t += 3.5
      const from = t
      t = say(t, 0.35) + 0.4
      const peak = t
      t = roar(t, 2.5)
      say(peak + 0.6, 0.9)
      t = Math.max(t, words.at(-1).to) + 0.5
      t = say(t, 0.5)
      moments.push({ from, to: words.at(-1).to, peak })
      t += 4
      continue
    }
    for (let n = 1 + Math.floor(random() * 3); n > 0; n--) t = say(t, 0.3) + 0.25 + random() * 0.5
    t += 2 + random() * 5
  }
  const wav = made(`${name}.raw`)
  writeFileSync(wav, Buffer.from(pcm.buffer))
  const list = made(`${name}.txt`)
  const third = minutes / SCENES.length
  const scenes = Array.from({ length: minutes }, (_, n) => sceneFile(Math.floor(n / third)))
  writeFileSync(list, scenes.map((file) => `file '${file}'`).join('\n'))
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'concat', '-safe', '0', '-i', list],
    ...['-f', 's16le', '-ar', String(RATE), '-ac', '1', '-i', wav],
    ...['-map', '0:v', '-map', '1:a', '-c:v', 'copy', '-c:a', 'aac', '-b:a', '128k', '-ar', '48000', '-ac', '2'],
    ...['-t', String(minutes * 60), '-movflags', '+faststart', out],
  ])
  const truth = { moments, words }
  writeFileSync(truthFile, JSON.stringify(truth))
  return { file: out, truth }
}
