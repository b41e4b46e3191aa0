import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Feed } from '@/core/compose/composition'
import type { RecordingId } from '@/core/model/ids'
import { sampleEdit } from '../../../tests/support/edits'
import { SourceSet } from './sourceSet'

/** Cursors by the order in which they were made: what they were asked for, whether they are closed. */
const cursors: { id: string; asked: number[]; closed: boolean; atOnce: number }[] = []
let disposed = 0

vi.mock('./openSource', () => ({
  openSource: async (file: Blob) => {
    if (file.size === 0) throw new Error('nothing in it')
    return { size: file.size, dispose: () => disposed++ }
  },
}))

vi.mock('./frameCursor', () => ({
  FrameCursor: class {
    private readonly own: (typeof cursors)[number]
    private working = 0

    constructor(source: { size: number }) {
      this.own = { id: String(source.size), asked: [], closed: false, atOnce: 0 }
      cursors.push(this.own)
    }

    async frameAt(t: number) {
      this.working++
      this.own.atOnce = Math.max(this.own.atOnce, this.working)
      this.own.asked.push(t)
      await Promise.resolve()
      this.working--
      return { timestamp: t }
    }

    async close() {
      this.own.closed = true
    }
  },
}))

const bytes = (size: number) => new Blob([new Uint8Array(size)])
const feed = (micros: number, lane = 'one'): Feed => ({ recordingId: 'r' as RecordingId, micros, lane })
const name = () => 'evening.mp4'

async function opened(): Promise<SourceSet> {
  const set = await SourceSet.openAll(sampleEdit(), new Map([['r', bytes(3)]]))
  if (!(set instanceof SourceSet)) throw new Error('it is there')
  return set
}

beforeEach(() => {
  cursors.length = 0
  disposed = 0
})

describe('a set of sources', () => {
  it('says which file is missing, or cannot be opened', async () => {
    const [recording] = sampleEdit().recordings
    for (const files of [new Map<string, Blob>(), new Map([['r', bytes(0)]])])
      expect(await SourceSet.openAll(sampleEdit(), files)).toEqual({ fileName: recording?.fileName })
  })

  it('gives each moment that was loaded, decoded once, until the next load', async () => {
    const set = await opened()
    await set.load([feed(10), feed(10), feed(20, 'two')], name)
    expect(set.frameOf(feed(10))).toEqual({ timestamp: 10 })
    expect(set.frameOf(feed(20, 'two'))).toEqual({ timestamp: 20 })
    expect(cursors.map((c) => c.asked)).toEqual([[10], [20]])
    await set.load([feed(30)], name)
    expect(set.frameOf(feed(10))).toBeNull()
    // The walk of a lane goes on with the decoder that it has.
    expect(cursors.map((c) => c.asked)).toEqual([[10, 30], [20]])
  })

  it('lets a walk that was made ready go on where its lane begins', async () => {
    const set = await opened()
    await set.load([feed(0)], name)
    await set.makeReady(feed(5_000_000, 'next'), 1000)
    await set.load([feed(5_000_000, 'next')], name)
    await set.load([feed(5_040_000, 'after a strike')], name)
    expect(cursors.map((c) => c.asked)).toEqual([[0], [5_000_000, 5_000_000, 5_040_000]])
  })

  it('keeps no more decoders than it may, closing what was used longest ago', async () => {
    const set = await opened()
    for (let n = 0; n < 8; n++) await set.load([feed(n * 60_000_000, `lane ${n}`)], name)
    const open = cursors.filter((c) => !c.closed)
    expect(open.length).toBeLessThanOrEqual(4)
    expect(open.at(-1)?.asked).toEqual([7 * 60_000_000])
    expect(cursors[0]?.closed).toBe(true)
  })

  it('asks a decoder for one frame at a time, however many want one', async () => {
    const set = await opened()
    await Promise.all([set.load([feed(0)], name), set.makeReady(feed(100), 0), set.makeReady(feed(200), 0)])
    expect(Math.max(...cursors.map((c) => c.atOnce))).toBe(1)
  })

  it('reads copies where they are asked for and there are any, and the recording itself for all else', async () => {
    const set = await opened()
    const copy = (index: number, size: number) => ({ recordingId: 'r' as RecordingId, index, file: bytes(size) })
    set.copies.add([copy(0, 50), copy(1, 51)])
    await set.load([feed(1_000_000)], name)
    expect(set.isFromCopy(feed(1_000_000))).toBe(false)
    for (const t of [1_000_000, 9_000_000, 17_000_000]) await set.load([feed(t)], name, undefined, 'copies')
    expect(set.isFromCopy(feed(17_000_000))).toBe(false)
    // The recording itself, then two pieces after one another, then where there is none the recording again.
    expect(cursors.map((c) => [c.id, c.asked])).toEqual([
      ['3', [1_000_000, 17_000_000]],
      ['50', [1_000_000]],
      ['51', [9_000_000]],
    ])
    await set.close()
    expect(disposed).toBe(3)
  })

  it('goes back to the recording where copies are forgotten, or cannot be opened', async () => {
    const set = await opened()
    const copy = (index: number, size: number) => ({ recordingId: 'r' as RecordingId, index, file: bytes(size) })
    set.copies.add([copy(0, 50), copy(1, 0)])
    expect(set.copies.forget([feed(1_000_000), feed(20_000_000)])).toBe(true)
    expect(set.copies.forget([feed(1_000_000)])).toBe(false)
    for (const t of [1_000_000, 9_000_000]) await set.load([feed(t)], name, undefined, 'copies')
    expect(cursors.map((c) => c.id)).toEqual(['3'])
  })

  it('has the next piece ready where one ends, and goes on in it', async () => {
    const set = await opened()
    set.copies.add([0, 1].map((index) => ({ recordingId: 'r' as RecordingId, index, file: bytes(50 + index) })))
    await set.load([feed(7_500_000)], name, undefined, 'copies')
    await set.makeReady(feed(8_000_000), 500_000, 'copies')
    for (const t of [7_900_000, 8_000_000, 8_033_000]) await set.load([feed(t)], name, undefined, 'copies')
    expect(cursors.map((c) => c.asked)).toEqual([
      [7_500_000, 7_900_000],
      [8_000_000, 8_000_000, 8_033_000],
    ])
  })

  it('stands close to what it has just shown of the recording itself', async () => {
    const set = await opened()
    await set.load([feed(1_000_000)], name)
    expect([1_000_000, 1_100_000, 900_000, 2_000_000].map((t) => set.isClose([feed(t)]))).toEqual([
      true,
      true,
      false,
      false,
    ])
    expect(set.isClose([feed(1_000_000), feed(1_000_000, 'other')])).toBe(false)
  })

  it('names what is being read while it is read, and lets go of everything in the end', async () => {
    const set = await opened()
    const loading = set.load([feed(10)], name)
    expect(set.reading).toEqual({ fileName: 'evening.mp4', atMicros: 10 })
    await loading
    expect(set.reading).toBeNull()
    await set.close()
    expect(cursors.every((c) => c.closed)).toBe(true)
    expect(disposed).toBe(1)
  })
})
