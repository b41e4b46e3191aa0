import { mkdtempSync } from 'node:fs'
import { spawnSync } from 'node:child_process'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { ffmpeg, run } from '../../../tests/support/ffmpeg'
import { LoudnessMeter } from './loudness'

const folder = mkdtempSync(join(tmpdir(), 'brimble-loudness-'))

/** What ffmpeg's own measure says of a file. */
function byFfmpeg(file: string): { lufs: number; peakDb: number } {
  const { stderr } = spawnSync('ffmpeg', ['-nostats', '-i', file, '-af', 'ebur128=peak=true', '-f', 'null', '-'])
  const summary = stderr.toString().split('Summary:')[1] ?? ''
  return {
    lufs: Number(/I:\s+(-?[\d.]+|-inf) LUFS/.exec(summary)?.[1]),
    peakDb: Number(/Peak:\s+(-?[\d.]+|-inf) dBFS/.exec(summary)?.[1]),
  }
}

function byMeter(file: string) {
  const raw = run('ffmpeg', ['-v', 'error', '-i', file, '-ar', '48000', '-ac', '2', '-f', 'f32le', '-'])
  const all = new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength))
  const meter = new LoudnessMeter(48000)
  for (let at = 0; at < all.length; at += 9600) meter.push(all.subarray(at, at + 9600))
  return meter.loudness()
}

const SIGNALS: Record<string, string> = {
  'a sine of 1 kHz at -23 dBFS in both channels': 'sine=f=997:r=48000:d=5,volume=-5dB,pan=stereo|c0=c0|c1=c0',
  'a sine whose peaks lie between the samples':
    "aevalsrc='0.7*sin(2*PI*12000*t+PI/4)|0.7*sin(2*PI*12000*t+PI/4)':s=48000:d=3,afade=t=in:d=0.2,afade=t=out:st=2.8:d=0.2",
  'pink noise': 'anoisesrc=c=pink:r=48000:a=0.3:d=6:seed=7,pan=stereo|c0=c0|c1=c0',
  'loud and quiet by turns, so that the gate matters':
    "aevalsrc='if(lt(mod(t,4),2),0.4,0.01)*sin(2*PI*440*t)|if(lt(mod(t,4),2),0.4,0.01)*sin(2*PI*330*t)':s=48000:d=12",
  'low tones': "aevalsrc='0.5*sin(2*PI*50*t)|0.5*sin(2*PI*60*t)':s=48000:d=4",
  'one channel alone': "aevalsrc='0.5*sin(2*PI*1500*t)|0':s=48000:d=4",
}

for (const [name, graph] of Object.entries(SIGNALS))
  test(`agrees with ffmpeg on ${name}`, () => {
    const file = join(folder, `${name.replace(/\W+/g, '-')}.wav`)
    ffmpeg('-f', 'lavfi', '-i', graph, '-c:a', 'pcm_f32le', file)
    const [theirs, ours] = [byFfmpeg(file), byMeter(file)]
    expect(Math.abs(ours.lufs - theirs.lufs), `${ours.lufs} against ${theirs.lufs} LUFS`).toBeLessThanOrEqual(0.1)
    expect(Math.abs(ours.peakDb - theirs.peakDb), `${ours.peakDb} against ${theirs.peakDb} dBTP`).toBeLessThanOrEqual(
      0.2,
    )
  })

test('agrees with ffmpeg on the demo stream', () => {
  const file = join(folder, 'stream.wav')
  ffmpeg('-i', 'public/demo/ridge-cup-stream.mp4', '-vn', '-ar', '48000', '-ac', '2', '-c:a', 'pcm_f32le', file)
  const [theirs, ours] = [byFfmpeg(file), byMeter(file)]
  expect(Math.abs(ours.lufs - theirs.lufs), `${ours.lufs} against ${theirs.lufs} LUFS`).toBeLessThanOrEqual(0.1)
  expect(Math.abs(ours.peakDb - theirs.peakDb), `${ours.peakDb} against ${theirs.peakDb} dBTP`).toBeLessThanOrEqual(0.2)
})

test('silence and sound too short to gate are silence', () => {
  const meter = new LoudnessMeter(48000)
  expect(meter.loudness()).toMatchObject({ lufs: -120, peakDb: -120, momentary: [] })
  meter.push(new Float32Array(96000))
  expect(meter.loudness()).toMatchObject({ lufs: -120, peakDb: -120 })
  const short = new LoudnessMeter(48000)
  short.push(new Float32Array(2 * 4800).fill(0.5))
  expect(short.loudness().lufs).toBe(-120)
  expect(short.loudness().peakDb).toBeGreaterThan(-7)
})
