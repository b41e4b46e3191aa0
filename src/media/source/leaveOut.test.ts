import { ALL_FORMATS, EncodedPacketSink, FilePathSource, Input, type EncodedPacket } from 'mediabunny'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeAll, describe, expect, it } from 'vitest'
import { ffmpeg, run } from '../../../tests/support/ffmpeg'
import { SEED, seeded } from '../../../tests/support/seeded'
import { disposableIn, withoutUnseen } from './leaveOut'
import { WantedTimes } from './wantedTimes'

const folder = mkdtempSync(join(tmpdir(), 'brimble-leave-'))
const files = [
  ['mp4', 'flat.mp4', ['-x264-params', 'bframes=3:b-pyramid=none:b-adapt=0']],
  ['mkv', 'pyramid.mkv', ['-x264-params', 'bframes=3:b-pyramid=normal:b-adapt=2']],
  ['ts', 'start-codes.ts', ['-x264-params', 'bframes=2:b-pyramid=none']],
  ['mp4', 'no-b.mp4', ['-bf', '0']],
] as const

beforeAll(() => {
  for (const [, name, how] of files)
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      'testsrc2=s=160x90:r=60:d=3',
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-g',
      '60',
      '-pix_fmt',
      'yuv420p',
      ...how,
      join(folder, name),
    )
})

async function packetsOf(name: string) {
  const input = new Input({ formats: ALL_FORMATS, source: new FilePathSource(join(folder, name)) })
  const track = await input.getPrimaryVideoTrack()
  if (!track) throw new Error('no picture')
  const packets: EncodedPacket[] = []
  for await (const packet of new EncodedPacketSink(track).packets()) packets.push(packet)
  return { packets, isDisposable: await disposableIn(track) }
}

/** Kinds of picture by ffprobe, in the order of their times. */
function kindsOf(name: string): string[] {
  const { frames } = JSON.parse(
    run('ffprobe', [
      '-v',
      'error',
      '-show_frames',
      '-select_streams',
      'v',
      '-show_entries',
      'frame=pict_type',
      '-of',
      'json',
      join(folder, name),
    ]).toString(),
  ) as { frames: { pict_type: string }[] }
  return frames.map((f) => f.pict_type)
}

async function* each(packets: readonly EncodedPacket[]) {
  yield* packets
}

describe('packets that no other frame is made from', () => {
  it('are the B pictures where none of those is made from another, in MP4 as with start codes; none where there are none', async () => {
    for (const name of ['flat.mp4', 'start-codes.ts', 'no-b.mp4']) {
      const { packets, isDisposable } = await packetsOf(name)
      const kinds = kindsOf(name)
      const byTime = [...packets].sort((a, b) => a.timestamp - b.timestamp)
      expect(byTime.map(isDisposable), name).toEqual(kinds.map((k) => k === 'B'))
    }
    const { packets, isDisposable } = await packetsOf('pyramid.mkv')
    const share = packets.filter(isDisposable).length / packets.length
    expect(share).toBeGreaterThan(0.2)
    expect(share).toBeLessThan(kindsOf('pyramid.mkv').filter((k) => k === 'B').length / packets.length)
  })
})

describe('without what nobody looks at', () => {
  it('every frame on screen at a wanted time stays, in order, whatever the rate; at half the rate a good part goes', async () => {
    const random = seeded(SEED)
    for (const [, name] of files) {
      const { packets, isDisposable } = await packetsOf(name)
      const micros = (seconds: number) => Math.round(seconds * 1e6)
      for (let round = 0; round < 12; round++) {
        const wanted = new WantedTimes()
        const times: number[] = []
        const step = round === 0 ? 1e6 / 30 : random.between(8000, 90_000)
        for (let t = random.between(0, 40_000); t < 3_400_000; t += step) times.push(Math.round(t))
        times.forEach((t) => wanted.add(t))
        const kept: EncodedPacket[] = []
        for await (const packet of withoutUnseen(each(packets), isDisposable, (from, to) =>
          wanted.isUnseen(micros(from), micros(to)),
        ))
          kept.push(packet)
        const starts = packets.map((p) => micros(p.timestamp)).sort((a, b) => a - b)
        const onScreen = new Set(times.flatMap((t) => starts.findLast((s) => s <= t) ?? []))
        const keptStarts = new Set(kept.map((p) => micros(p.timestamp)))
        expect(
          [...onScreen].filter((s) => !keptStarts.has(s)),
          `${name}, every ${step} µs`,
        ).toEqual([])
        expect(kept).toEqual(packets.filter((p) => keptStarts.has(micros(p.timestamp))))
        expect(packets.filter((p) => !keptStarts.has(micros(p.timestamp))).every(isDisposable)).toBe(true)
        if (round === 0 && name === 'flat.mp4') expect(kept.length / packets.length).toBeLessThan(0.8)
      }
    }
  })

  it('nothing goes beyond what is known, nor when nothing is', async () => {
    const { packets, isDisposable } = await packetsOf('flat.mp4')
    const wanted = new WantedTimes()
    wanted.add(0)
    wanted.add(1_000_000)
    const kept: EncodedPacket[] = []
    for await (const packet of withoutUnseen(each(packets), isDisposable, (from, to) =>
      wanted.isUnseen(from * 1e6, to * 1e6),
    ))
      kept.push(packet)
    expect(kept.filter((p) => p.timestamp > 1.02).length).toBe(packets.filter((p) => p.timestamp > 1.02).length)
    expect(kept.filter((p) => p.timestamp < 0.98).every((p) => p.timestamp === 0 || !isDisposable(p))).toBe(true)
    expect(new WantedTimes().isUnseen(0, 1)).toBe(false)
  })
})
