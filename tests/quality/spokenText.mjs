// Speech whose words' times are known: Debian's flite reads a text, and tells when each of its sounds ends.
import { execFileSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from '../../scripts/commands.mjs'

const MADE = join(root, 'tests', '.made', 'spoken')
export const RATE = 16_000

/** Long English prose that lies on every Debian system and has nothing to do with the demo. */
const PROSE = '/usr/share/common-licenses/GPL-3'

/** Sentences of the prose, as plain text. */
export function prose() {
  const text = readFileSync(PROSE, 'utf8').split('\n').slice(10).join('\n')
  return text
    .replace(/<[^>]*>/g, '')
    .replace(/["`]/g, '')
    .replace(/\s+/g, ' ')
    .split(/(?<=[.!?;:])\s/)
    .map((s) => s.trim())
    .filter((s) => /[a-z]/.test(s))
}

const flite = (...args) => execFileSync('flite', args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }).trim()

/** The ends of a sentence's sounds, seconds from its start; flite counts anew for each part that it speaks alone. */
function soundsOf(args) {
  let [base, last, end] = [0, 0, 0]
  return [...flite(...args, '-psdur').matchAll(/([a-z]+):([\d.]+)/g)].map(([, name, text]) => {
    const said = Number(text)
    if (said < last) base = end
    const from = end
    last = said
    end = base + said
    return { name, from, to: end }
  })
}

/** Which word each sound of a sentence belongs to: its words' own sounds, matched at the least number of changes. */
function ownersOf(own, sounds) {
  const cost = Array.from({ length: own.length + 1 }, () => new Int32Array(sounds.length + 1))
  const differs = (i, j) => (own[i].name === sounds[j].name ? 0 : 1)
  for (let i = own.length; i >= 0; i--)
    for (let j = sounds.length; j >= 0; j--) {
      if (i === own.length) cost[i][j] = sounds.length - j
      else if (j === sounds.length) cost[i][j] = own.length - i
      else cost[i][j] = Math.min(cost[i + 1][j + 1] + differs(i, j), cost[i + 1][j] + 1, cost[i][j + 1] + 1)
    }
  const owners = []
  for (let i = 0, j = 0; i < own.length && j < sounds.length;) {
    if (cost[i][j] === cost[i + 1][j + 1] + differs(i, j)) owners[j++] = own[i++].word
    else if (cost[i][j] === cost[i + 1][j] + 1) i++
    else owners[j] = owners[j++ - 1] ?? own[i].word
  }
  return owners
}

/**
 * Sentences read by a voice, `stretch` times as slowly: samples of {@link RATE}, and the words with their times,
 * seconds. Kept for the next run.
 */
export function speak(name, sentences, voice, stretch) {
  mkdirSync(MADE, { recursive: true })
  const [raw, known] = [join(MADE, `${name}.raw`), join(MADE, `${name}.json`)]
  if (!existsSync(known)) {
    const ownSounds = new Map()
    const [parts, words] = [[], []]
    let at = 0
    for (const sentence of sentences) {
      const wav = join(MADE, 'sentence.wav')
      const args = ['-voice', voice, '--setf', `duration_stretch=${stretch}`, '-t', sentence]
      const sounds = soundsOf([...args, '-o', wav]).filter((s) => s.name !== 'pau')
      const said = flite(...args, '-o', 'none', '-pw').split(/\s+/)
      const own = said.flatMap((text, word) => {
        if (!ownSounds.has(text))
          ownSounds.set(text, flite('-voice', voice, '-t', text, '-o', 'none', '-ps').split(/\s+/))
        return ownSounds.get(text).flatMap((sound) => (sound === 'pau' ? [] : [{ name: sound, word }]))
      })
      const owners = ownersOf(own, sounds)
      said.forEach((text, word) => {
        const mine = sounds.filter((_, j) => owners[j] === word)
        if (mine.length > 0) words.push({ text, from: at + mine[0].from, to: at + mine.at(-1).to })
      })
      const samples = readFileSync(wav).subarray(44)
      parts.push(samples)
      at += samples.length / 2 / RATE
    }
    writeFileSync(raw, Buffer.concat(parts))
    writeFileSync(known, JSON.stringify({ text: sentences.join(' '), words }))
  }
  const bytes = readFileSync(raw)
  const samples = new Int16Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length))
  return { ...JSON.parse(readFileSync(known, 'utf8')), pcm: Float32Array.from(samples, (x) => x / 32768) }
}
