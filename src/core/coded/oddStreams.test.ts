// Streams that ffmpeg makes, told apart by their bytes.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ffmpeg } from '../../../tests/support/ffmpeg'
import { mayBeInterlaced, sequenceSetIn } from './avcSequence'
import { holdsEncrypted, isTransportStream, streamTypes, unreadContainer, unreadPictures } from './containers'
import { clockJumps, firstTimes, TransportClock } from './transportClock'

const folder = mkdtempSync(join(tmpdir(), 'brimble-odd-'))
const at = (name: string) => join(folder, name)
const read = (name: string) => new Uint8Array(readFileSync(at(name)))
const source = (seconds: number) => ['-f', 'lavfi', '-i', `testsrc2=s=320x180:r=30:d=${seconds}`]
const sound = (seconds: number) => ['-f', 'lavfi', '-i', `sine=440:d=${seconds}`]
const H264 = ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', '-g', '30']

beforeAll(() => {
  ffmpeg(...source(2), ...sound(2), ...H264, '-c:a', 'aac', at('plain.ts'))
  ffmpeg(...source(2), ...sound(2), ...H264, '-c:a', 'aac', '-output_ts_offset', '95441.5', at('over.ts'))
  ffmpeg(...source(1), ...sound(1), '-c:v', 'mpeg2video', '-c:a', 'mp2', at('mpeg2.ts'))
  ffmpeg(...source(1), '-c:v', 'mpeg4', at('old.avi'))
  ffmpeg(...source(1), '-c:v', 'flv1', at('old.flv'))
  ffmpeg(...source(1), '-c:v', 'wmv2', at('old.wmv'))
  ffmpeg(...source(1), ...H264, at('plain.mp4'))
  const key = '76a6c65c5ea762046bd749a2e632ccbb'
  const encryption = ['-encryption_scheme', 'cenc-aes-ctr', '-encryption_key', key, '-encryption_kid', key]
  ffmpeg('-i', at('plain.mp4'), '-c', 'copy', ...encryption, at('encrypted.mp4'))
  for (const profile of ['baseline', 'main', 'high'])
    ffmpeg(...source(1), ...H264, '-profile:v', profile, '-f', 'h264', at(`frames-${profile}.h264`))
  for (const profile of ['main', 'high'])
    ffmpeg(...source(1), ...H264, '-profile:v', profile, '-flags', '+ildct+ilme', '-f', 'h264', at(`${profile}.h264`))
})
afterAll(() => rmSync(folder, { recursive: true }))

/** Times of the pictures of a transport stream, seconds, as ffprobe reads them. */
function timesOf(bytes: Uint8Array): number[] {
  const probe = ['-v', 'error', '-select_streams', 'v', '-show_entries', 'packet=pts_time', '-of', 'csv=p=0', '-i', '-']
  const text = execFileSync('ffprobe', probe, { input: bytes, encoding: 'utf8', stdio: ['pipe', 'pipe', 'ignore'] })
  return (text.match(/[\d.]+/g) ?? []).map(Number).sort((a, b) => a - b)
}

describe('kinds of files', () => {
  it('names those that are not read, and none of the others', () => {
    expect(unreadContainer(read('old.avi'))).toBe('AVI')
    expect(unreadContainer(read('old.flv'))).toBe('FLV')
    expect(unreadContainer(read('old.wmv'))).toBe('WMV (ASF)')
    for (const name of ['plain.mp4', 'plain.ts', 'mpeg2.ts']) expect(unreadContainer(read(name))).toBeNull()
  })

  it('reads from the tables of a transport stream how it is coded', () => {
    expect(streamTypes(read('plain.ts'))).toEqual([0x1b, 0x0f])
    expect(unreadPictures(read('plain.ts'))).toBeNull()
    expect(unreadPictures(read('mpeg2.ts'))).toBe('MPEG-2')
    expect(unreadPictures(read('plain.mp4'))).toBeNull()
    expect(isTransportStream(read('plain.mp4'))).toBe(false)
    expect(streamTypes(read('plain.ts').subarray(0, 100))).toEqual([])
  })

  it('tells an encrypted file', () => {
    expect(holdsEncrypted(read('encrypted.mp4'))).toBe(true)
    expect(holdsEncrypted(read('plain.mp4'))).toBe(false)
  })

  it('tells pictures that may be interlaced, in each profile that has them', () => {
    for (const profile of ['baseline', 'main', 'high']) {
      const set = sequenceSetIn(read(`frames-${profile}.h264`))
      expect(set && mayBeInterlaced(set), profile).toBe(false)
    }
    for (const profile of ['main', 'high']) {
      const set = sequenceSetIn(read(`${profile}.h264`))
      expect(set && mayBeInterlaced(set), profile).toBe(true)
    }
    expect(sequenceSetIn(Uint8Array.of(0, 0, 1))).toBeNull()
  })
})

describe('the clock of a transport stream', () => {
  const joined = (...parts: Uint8Array[]) => new Uint8Array(Buffer.concat(parts))
  const placesOf = (bytes: Uint8Array) => [0, 1, 2, 3, 4, 5, 6, 7].map((n) => part(bytes, n, 8))
  const part = (bytes: Uint8Array, n: number, of: number) => {
    const packets = bytes.length / 188
    return firstTimes(bytes.subarray(188 * Math.floor((n * packets) / of), 188 * Math.floor(((n + 1) * packets) / of)))
  }

  it.each([
    ['begins anew', () => joined(read('plain.ts'), read('plain.ts')), 120],
    ['begins anew twice', () => joined(read('plain.ts'), read('plain.ts'), read('plain.ts')), 180],
    ['runs over', () => read('over.ts'), 60],
  ])('that %s goes on after it is mended, a frame after a frame', (_, make, frames) => {
    const bytes = make()
    expect(clockJumps(placesOf(bytes))).toBe(true)
    const clock = new TransportClock()
    // In uneven parts, as a file is read.
    for (let from = 0, n = 0; from < bytes.length; n++) {
      const to = Math.min(bytes.length, from + 188 * (1 + (n % 7)))
      clock.mend(bytes.subarray(from, to))
      from = to
    }
    expect(clockJumps(placesOf(bytes))).toBe(false)
    const times = timesOf(bytes)
    expect(times).toHaveLength(frames)
    for (const [n, t] of times.slice(1).entries()) expect(t - (times[n] ?? 0)).toBeCloseTo(1 / 30, 2)
  })

  it('that goes on is left alone', () => {
    expect(clockJumps(placesOf(read('plain.ts')))).toBe(false)
    expect(clockJumps([])).toBe(false)
  })
})
