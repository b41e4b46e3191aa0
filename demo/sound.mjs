// The demo footage's sound: spoken lines (Debian's flite), wind, the variometer's beeps, a cheer; all 48 kHz mono
// float.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

export const sampleRate = 48000

/** mulberry32: a small seeded generator, so that the footage is the same on every run. */
export function seeded(seed) {
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = a
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/**
 * Speaks each line; returns `{ ...line, from, to, samples }` with seconds in the recording. Throws if two lines
 * overlap.
 */
export function speak(lines) {
  const dir = mkdtempSync(join(tmpdir(), 'brimble-voice-'))
  try {
    let end = 0
    return lines.map((line) => {
      const wav = join(dir, 'line.wav')
      execFileSync('flite', ['-voice', line.voice, '-t', line.text, '-o', wav])
      const raw = execFileSync(
        'ffmpeg',
        [
          '-v',
          'error',
          '-i',
          wav,
          '-af',
          'silenceremove=start_periods=1:start_threshold=-50dB,areverse,silenceremove=start_periods=1:start_threshold=-50dB,areverse',
          '-ar',
          String(sampleRate),
          '-ac',
          '1',
          '-f',
          'f32le',
          '-',
        ],
        { maxBuffer: 1 << 28 },
      )
      const samples = new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength))
      const to = line.at + samples.length / sampleRate
      if (line.at < end)
        throw new Error(`"${line.text}" starts at ${line.at} s, before the line before it ends (${end.toFixed(2)} s)`)
      end = to
      return { ...line, from: line.at, to, samples }
    })
  } finally {
    rmSync(dir, { recursive: true })
  }
}

/** A bed of wind: brown noise swelling slowly, about −42 dBFS. */
export function wind(durationSeconds, seed, gain = 0.02) {
  const out = new Float32Array(Math.round(durationSeconds * sampleRate))
  const random = seeded(seed)
  let low = 0
  for (let i = 0; i < out.length; i++) {
    low += 0.02 * (random() * 2 - 1 - low)
    out[i] = low * gain * 6 * (0.7 + 0.3 * Math.sin((i / sampleRate) * 0.9))
  }
  return out
}

/** Adds short rising tones from `from` to `to` seconds, as a variometer sounds in lift. */
export function addBeeps(out, from, to, gain = 0.035) {
  for (let t = from; t < to; t += 0.34) {
    const start = Math.round(t * sampleRate)
    const pitch = 520 + 260 * ((t - from) / (to - from))
    for (let i = 0; i < 0.13 * sampleRate; i++) {
      const fade = Math.min(1, i / 400, (0.13 * sampleRate - i) / 400)
      out[start + i] += gain * fade * Math.sin((2 * Math.PI * pitch * i) / sampleRate)
    }
  }
}

export function addSpeech(out, spoken) {
  for (const line of spoken) {
    const start = Math.round(line.from * sampleRate)
    const gain = 0.42 * (line.gain ?? 1)
    for (let i = 0; i < line.samples.length && start + i < out.length; i++)
      out[start + i] = Math.tanh(out[start + i] + gain * line.samples[i])
  }
}

/** Adds a burst of band-limited noise, like a small crowd, swelling and dying away between `from` and `to` seconds. */
export function addCheer(out, from, to, seed, gain = 0.1) {
  const random = seeded(seed)
  let a = 0
  let b = 0
  for (let i = Math.round(from * sampleRate); i < Math.round(to * sampleRate); i++) {
    const x = (i / sampleRate - from) / (to - from)
    a += 0.25 * (random() * 2 - 1 - a)
    b += 0.04 * (a - b)
    out[i] += gain * Math.sin(Math.PI * x) * (a - b) * 2.5
  }
}

/** How far a mouth is open at each video frame: the speech's level over the frame, 0..1. */
export function mouthLevels(spoken, durationSeconds, fps) {
  const levels = new Float32Array(Math.ceil(durationSeconds * fps))
  for (const line of spoken) {
    const hop = sampleRate / fps
    for (let k = 0; k * hop < line.samples.length; k++) {
      let sum = 0
      for (let i = Math.floor(k * hop); i < Math.min((k + 1) * hop, line.samples.length); i++)
        sum += line.samples[i] ** 2
      levels[Math.min(levels.length - 1, Math.floor(line.from * fps) + k)] = Math.min(1, Math.sqrt(sum / hop) * 6)
    }
  }
  return levels
}

/** Writes mono samples as a 16-bit WAV file with the same sound in both channels. */
export function writeWav(path, samples) {
  const data = Buffer.alloc(44 + samples.length * 4)
  data.write('RIFF', 0)
  data.writeUInt32LE(36 + samples.length * 4, 4)
  data.write('WAVEfmt ', 8)
  data.writeUInt32LE(16, 16)
  data.writeUInt16LE(1, 20)
  data.writeUInt16LE(2, 22)
  data.writeUInt32LE(sampleRate, 24)
  data.writeUInt32LE(sampleRate * 4, 28)
  data.writeUInt16LE(4, 32)
  data.writeUInt16LE(16, 34)
  data.write('data', 36)
  data.writeUInt32LE(samples.length * 4, 40)
  samples.forEach((s, i) => {
    const v = Math.round(Math.max(-1, Math.min(1, s)) * 32767)
    data.writeInt16LE(v, 44 + i * 4)
    data.writeInt16LE(v, 46 + i * 4)
  })
  writeFileSync(path, data)
}
