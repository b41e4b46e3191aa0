// When each word is said, and what PocketSphinx hears: `npm run score -- captions [--files DIR]`. The lining up is the
// application's own code with the same decoder and model; sound is decoded by ffmpeg here.
import { execFileSync, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import createModule from 'soundswallower'
import { root } from '../../scripts/commands.mjs'
import { core } from './core.mjs'
import { prose, RATE, speak } from './spokenText.mjs'

/** Those of media/speech/alignService. */
const BEAMS = { beam: 1e-80, wbeam: 1e-60, pbeam: 1e-80 }
const MODEL = join(root, 'node_modules', 'soundswallower', 'model', '/')
const NOISES = [null, 20, 10, 5]
/** Of each sound that PocketSphinx hears. */
const HEARD_SECONDS = 60

const folder = mkdtempSync(join(tmpdir(), 'brimble-captions-score-'))

/** A wind, a horn and a beep over each other, `seconds` long, as loud as `db` below the speech. */
function withNoise(pcm, db) {
  const graph =
    "anoisesrc=c=pink:d=60:r=16000:a=0.4:seed=5[a];aevalsrc='0.3*sin(2*PI*(200+150*sin(PI*t))*t)*gt(mod(t,3),2)+0.4*sin(2*PI*880*t)*gt(mod(t,1.7),1.6)':s=16000:d=60[b];[a][b]amix=2[n]"
  const raw = execFileSync('ffmpeg', ['-v', 'error', '-filter_complex', graph, '-map', '[n]', '-f', 'f32le', '-'], {
    maxBuffer: 1 << 28,
  })
  const noise = new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.length))
  const power = (x) => Math.sqrt(x.reduce((sum, v) => sum + v * v, 0) / x.length)
  const gain = power(pcm) / power(noise) / 10 ** (db / 20)
  return pcm.map((v, i) => 0.7 * (v + gain * noise[i % noise.length]))
}

/** Where it is loud enough to be speech, by level alone: parts of 10 ms, pauses from a quarter of a second on. */
function loudStretches(pcm) {
  const STEP = 160
  const levels = Array.from({ length: Math.floor(pcm.length / STEP) }, (_, n) => {
    let sum = 1e-9
    for (let i = n * STEP; i < (n + 1) * STEP; i++) sum += pcm[i] * pcm[i]
    return 10 * Math.log10(sum / STEP)
  })
  const sorted = [...levels].sort((a, b) => a - b)
  const [quiet, loud] = [sorted[Math.floor(0.05 * sorted.length)], sorted[Math.floor(0.95 * sorted.length)]]
  const isLoud = (level) => level > quiet + 0.35 * (loud - quiet)
  const stretches = []
  for (let n = 0; n < levels.length; n++) {
    if (!isLoud(levels[n])) continue
    const t = n * 10_000
    const last = stretches.at(-1)
    if (last && t - last.toMicros < 250_000) last.toMicros = t + 10_000
    else stretches.push({ fromMicros: t, toMicros: t + 10_000 })
  }
  return stretches.map((s) => ({ fromMicros: s.fromMicros - 50_000, toMicros: s.toMicros + 50_000 }))
}

async function newAligner() {
  const { alignWords } = await core('words/align/alignWords')
  const { WordListener } = await core('words/align/wordListener')
  const { saidTokens } = await core('words/align/saidTokens')
  const load = async () => {
    const { Decoder } = await createModule({ modelBase: MODEL })
    const decoder = new Decoder({ loglevel: 'FATAL', samprate: RATE, ...BEAMS })
    await decoder.initialize()
    return decoder
  }
  const place = async (text, read) => {
    const file = join(folder, 'grammar.fsg')
    writeFileSync(file, text)
    await read(file)
  }
  return async (pcm, text) => {
    const listener = new WordListener(load, place)
    const words = saidTokens(text).flatMap((t) => t.said)
    const from = performance.now()
    const hear = (a, b, asked) =>
      listener.hear(pcm.subarray(Math.round((a * RATE) / 1e6), Math.round((b * RATE) / 1e6)), a, asked)
    const aligned = await alignWords(words, loudStretches(pcm), hear)
    const seconds = (performance.now() - from) / 1000
    return { words, aligned, seconds }
  }
}

/** Seconds by which the edges of words that both have lie apart, rising; a word that was not made out counts as 10. */
function edgesApart({ words, aligned }, truth) {
  const apart = []
  let j = 0
  for (const [i, word] of words.entries()) {
    const k = truth.slice(j, j + 4).findIndex((t) => t.text === word)
    if (k < 0) continue
    j += k
    const { from, to } = truth[j++]
    const found = aligned[i]
    apart.push(...(found ? [Math.abs(found.fromMicros / 1e6 - from), Math.abs(found.toMicros / 1e6 - to)] : [10, 10]))
  }
  return apart.sort((a, b) => a - b)
}

const at = (sorted, share) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN
const within = (sorted, seconds) => sorted.filter((s) => s <= seconds).length / Math.max(1, sorted.length)

/** What PocketSphinx's own command makes of the first minute, against what is said there: share of words wrong. */
function wordErrors(pcm, truth) {
  const file = join(folder, 'heard.wav')
  const samples = Int16Array.from(pcm.subarray(0, HEARD_SECONDS * RATE), (v) => Math.round(32767 * v))
  const raw = ['-v', 'error', '-y', '-f', 's16le', '-ar', String(RATE), '-ac', '1', '-i', '-', file]
  execFileSync('ffmpeg', raw, { input: Buffer.from(samples.buffer) })
  const { stdout } = spawnSync('pocketsphinx_continuous', ['-infile', file, '-logfn', '/dev/null'], {
    encoding: 'utf8',
  })
  const heard = stdout.split(/\s+/).filter(Boolean)
  const said = truth.filter((t) => t.to < HEARD_SECONDS).map((t) => t.text)
  let row = Int32Array.from({ length: heard.length + 1 }, (_, j) => j)
  for (const [i, word] of said.entries()) {
    const next = new Int32Array(heard.length + 1).fill(i + 1)
    for (let j = 1; j <= heard.length; j++)
      next[j] = Math.min(row[j] + 1, next[j - 1] + 1, row[j - 1] + (heard[j - 1] === word ? 0 : 1))
    row = next
  }
  return (row.at(-1) ?? 0) / said.length
}

/** Sound or video with a `.txt` of what is said beside it, and a `.words.json` of `[{ text, from, to }]`, seconds. */
function filesIn(directory) {
  return readdirSync(directory)
    .filter((name) => /\.(wav|mp3|m4a|ogg|flac|mp4|mkv|webm|mov)$/i.test(name))
    .flatMap((name) => {
      const stem = join(directory, name.replace(/\.\w+$/, ''))
      if (!existsSync(`${stem}.txt`)) return []
      const args = ['-v', 'error', '-i', join(directory, name), '-ac', '1', '-ar', String(RATE), '-f', 'f32le', '-']
      const raw = execFileSync('ffmpeg', args, { maxBuffer: 1 << 30 })
      const pcm = new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.length))
      const words = existsSync(`${stem}.words.json`) ? JSON.parse(readFileSync(`${stem}.words.json`, 'utf8')) : []
      return [{ name, pcm, text: readFileSync(`${stem}.txt`, 'utf8'), words }]
    })
}

async function ownFiles(directory, asJson) {
  const align = await newAligner()
  for (const { name, pcm, text, words } of filesIn(directory)) {
    const found = await align(pcm, text)
    const truth = words.map((w) => ({ ...w, text: w.text.toLowerCase().replace(/[^a-z']/g, '') }))
    const apart = edgesApart(found, truth)
    const line = {
      file: name,
      seconds: pcm.length / RATE,
      tookSeconds: found.seconds,
      words: found.words.length,
      unheard: found.aligned.filter((w) => w === null).length,
      ...(truth.length > 0 && {
        medianMs: Math.round(1000 * at(apart, 0.5)),
        within120: within(apart, 0.12),
        within200: within(apart, 0.2),
      }),
      edges: found.words.map((word, i) => {
        const heard = found.aligned[i]
        return { text: word, from: heard && heard.fromMicros / 1e6, to: heard && heard.toMicros / 1e6 }
      }),
    }
    if (asJson) process.stdout.write(`${JSON.stringify(line)}\n`)
    else process.stdout.write(`${name}: ${JSON.stringify({ ...line, edges: undefined })}\n`)
  }
  return []
}

export async function captions(_, { files, asJson }) {
  try {
    if (files) return await ownFiles(files, asJson)
    return await madeSpeech()
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

async function madeSpeech() {
  const align = await newAligner()
  const sentences = prose()
  const half = Math.floor(sentences.length / 3)
  const spoken = [
    speak('rms-slow', sentences.slice(0, half), 'rms', 1.1),
    speak('awb-quick', sentences.slice(half, 2 * half), 'awb', 0.9),
  ]
  const scores = []
  for (const db of NOISES) {
    const apart = []
    const wrong = []
    for (const { pcm, text, words } of spoken) {
      const heard = db === null ? pcm : withNoise(pcm, db)
      apart.push(...edgesApart(await align(heard, text), words))
      wrong.push(wordErrors(heard, words))
    }
    apart.sort((a, b) => a - b)
    const where = db === null ? 'clean' : `game noise at ${db} dB`
    const median = 1000 * at(apart, 0.5)
    const [near, nearer] = [within(apart, 0.2), within(apart, 0.12)]
    const isMet = db === null ? median <= 50 && nearer >= 0.95 : db !== 10 || near >= 0.9
    process.stderr.write(`  ${db ?? 'clean'}: median ${median.toFixed(0)} ms\n`)
    scores.push({
      figure: `median ${median.toFixed(0)} ms, ${(100 * nearer).toFixed(1)} % within 120 ms, ${(100 * near).toFixed(1)} % within 200 ms`,
      unit: `edges of words, ${where}`,
      bar: { null: '50 ms, 95 % within 120 ms', 10: '90 % within 200 ms' }[db] ?? 'none',
      met: isMet,
      detail: `${apart.length} edges; PocketSphinx gets ${wrong.map((w) => (100 * w).toFixed(0)).join(' and ')} % of words wrong`,
    })
  }
  const long = speak('rms-long', sentences, 'rms', 1.15)
  const found = await align(long.pcm, long.text)
  const length = long.pcm.length / RATE
  const apart = edgesApart(found, long.words)
  scores.push({
    figure: `${at(apart, 0.999).toFixed(2)} s off at most of 999 edges in 1000, ${apart.at(-1)?.toFixed(2)} s at all, in ${(found.seconds / length).toFixed(3)} of its length`,
    unit: `${(length / 60).toFixed(0)} minutes pasted as one text`,
    bar: '0.3 s, 0.1',
    met: (apart.at(-1) ?? 10) <= 0.3 && found.seconds / length < 0.1,
  })
  return scores
}
