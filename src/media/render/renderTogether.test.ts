import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { RenderId } from '@/core/model/ids'
import type { RenderSettings } from '@/core/model/render'
import { sampleEdit } from '../../../tests/support/edits'
import type { RenderHost, RenderJob } from './renderJob'
import { renderTogether } from './renderTogether'

vi.hoisted(() => vi.stubGlobal('navigator', { hardwareConcurrency: 2 }))

/** Files that are being written: their frames, and how they ended. Sources and what draws pictures, likewise. */
const { files, loads, world } = vi.hoisted(() => ({
  files: new Map<string, { frames: number[]; end: 'open' | 'finished' | 'cancelled' }>(),
  loads: [] as number[],
  world: { failsAt: null as null | { id: string; frame: number; error: unknown }, unreadableAt: NaN, returned: 0 },
}))

vi.mock('../source/sourceSet', () => {
  class SourceSet {
    reading: { fileName: string; atMicros: number } | null = null
    recordings = new Map()
    frameOf = () => null
    imageOf = () => null
    static async openAll(_: unknown, given: ReadonlyMap<string, Blob>) {
      return given.has('r') ? new SourceSet() : { fileName: 'evening.mp4' }
    }
    expect() {}
    async load(feeds: { micros: number }[]) {
      const [feed] = feeds
      if (!feed) return
      this.reading = { fileName: 'evening.mp4', atMicros: feed.micros }
      loads.push(feeds.length)
      if (loads.length > world.unreadableAt) throw new Error('Decoding error.')
      this.reading = null
    }
    async close() {
      loads.push(-1)
    }
  }
  return { SourceSet }
})

vi.mock('./pictureMaker', () => ({
  PictureMaker: {
    start: async () => ({
      surface: (size: object) => ({ size }),
      draw: async (wanted: object[]) => wanted.map(() => ({})),
      giveBack: () => void world.returned++,
    }),
  },
}))

vi.mock('./encoders', () => ({
  chooseEncoders: async ({ width }: { width: number }) =>
    width > 2000 ? null : { container: 'mp4', video: 'avc', audio: 'aac' },
  loadEncoders: async () => {},
}))

vi.mock('./soundTrack', () => ({
  SoundWriter: class {
    async add() {}
    async drop() {}
    async writeUpTo() {}
    async finish() {}
    async close() {}
  },
}))
vi.mock('../sound/mixer', () => ({
  Mixer: class {
    blocks = () => null
  },
  SoundSources: class {
    close() {}
  },
}))

vi.mock('./outputFile', async () => {
  const { compose } = await import('@/core/compose/compose')
  const { timeMapOf } = await import('@/core/time/timeMap')
  return {
    OutputFile: {
      open: async ({
        wanted,
        edit,
        surface,
      }: {
        wanted: { id: string; shape: never }
        edit: never
        surface: object
      }) => {
        const own = { frames: [] as number[], end: 'open' as 'open' | 'finished' | 'cancelled' }
        files.set(wanted.id, own)
        const map = timeMapOf((edit as ReturnType<typeof sampleEdit>).highlight)
        return {
          wanted,
          surface,
          frames: 30,
          sound: null,
          start: async () => {},
          picture: (n: number) => ({ surface, composition: compose(edit, map, wanted.shape, n * 33_333) }),
          add: async (n: number) => {
            const fault = world.failsAt
            if (fault?.id === wanted.id && fault.frame === n) throw fault.error
            own.frames.push(n)
          },
          finish: async () => {
            own.end = 'finished'
            return { ok: true, file: { frames: own.frames.length }, extras: [] }
          },
          cancel: async () => void (own.end = 'cancelled'),
        }
      },
    },
  }
})

const SETTINGS = { size: null, frameRate: { num: 30, den: 1 }, videoBitrate: 8e6, captions: 'picture', loudness: null }

function jobOf(...widths: number[]): RenderJob {
  return {
    edit: sampleEdit(),
    backEnd: 'canvas',
    wanted: widths.map((width) => ({
      id: String(width) as RenderId,
      shape: { id: String(width), width, height: 1920 },
      settings: SETTINGS as unknown as RenderSettings,
    })),
    files: new Map([['r', new Blob(['x'])]]),
    speechOf: new Map(),
  }
}

function hostOf(changes: Partial<RenderHost> = {}): RenderHost {
  return {
    writableOf: () => new WritableStream(),
    onProgress: () => {},
    mayGoOn: async () => {},
    isDropped: () => false,
    signal: new AbortController().signal,
    ...changes,
  }
}

const ALL = Array.from({ length: 30 }, (_, n) => n)

beforeEach(() => {
  files.clear()
  loads.length = 0
  Object.assign(world, { failsAt: null, unreadableAt: NaN, returned: 0 })
})

describe('files that are made together', () => {
  it('each get every frame in order, from moments that are loaded once for all, and tell how far they are', async () => {
    const told: number[] = []
    const outcomes = await renderTogether(
      jobOf(1080, 720),
      hostOf({ onProgress: ({ frame, frames }) => told.push(frame / frames) }),
    )
    expect([...outcomes.values()].map((o) => o.ok)).toEqual([true, true])
    expect([...files.values()]).toEqual([
      { frames: ALL, end: 'finished' },
      { frames: ALL, end: 'finished' },
    ])
    expect(loads.slice(0, -1)).toEqual(ALL.map(() => loads[0]))
    expect(loads.at(-1)).toBe(-1)
    expect(told).toEqual(ALL.map((n) => (n + 1) / 30))
  })

  it('leave each other alone: of a full disk one file dies, of a size that no encoder takes another', async () => {
    world.failsAt = { id: '720', frame: 7, error: new DOMException('full', 'QuotaExceededError') }
    const outcomes = await renderTogether(jobOf(1080, 720, 2160), hostOf())
    expect(Object.fromEntries([...outcomes].map(([id, o]) => [id, o.ok ? 'made' : o.failure.reason]))).toEqual({
      '1080': 'made',
      '720': 'no-room',
      '2160': 'encoder-refuses-size',
    })
    expect(files.get('1080')).toEqual({ frames: ALL, end: 'finished' })
    expect(files.get('720')).toEqual({ frames: ALL.slice(0, 7), end: 'cancelled' })
    expect(world.returned).toBe(1)
  })

  it('all fail at the place of a recording that cannot be read, and leave no part', async () => {
    world.unreadableAt = 10
    const outcomes = await renderTogether(jobOf(1080, 720), hostOf())
    for (const outcome of outcomes.values())
      expect(outcome).toMatchObject({
        ok: false,
        failure: { reason: 'source-unreadable', fileName: 'evening.mp4', detail: 'Decoding error.' },
      })
    expect([...files.values()].map((f) => f.end)).toEqual(['cancelled', 'cancelled'])
  })

  it('go on without one that is dropped on the way, of which no outcome is told', async () => {
    let frame = 0
    const outcomes = await renderTogether(
      jobOf(1080, 720),
      hostOf({ onProgress: (p) => (frame = p.frame), isDropped: (id) => id === '720' && frame >= 5 }),
    )
    expect([...outcomes.keys()]).toEqual(['1080'])
    expect(files.get('720')).toEqual({ frames: ALL.slice(0, 5), end: 'cancelled' })
  })

  it('reject when all of it is stopped, and leave no part; none are begun where a recording is missing', async () => {
    const stop = new AbortController()
    const host = hostOf({ signal: stop.signal, onProgress: ({ frame }) => frame === 3 && stop.abort() })
    await expect(renderTogether(jobOf(1080), host)).rejects.toThrow()
    expect(files.get('1080')).toEqual({ frames: [0, 1, 2], end: 'cancelled' })
    const outcomes = await renderTogether({ ...jobOf(1080), files: new Map() }, hostOf())
    expect([...outcomes.values()]).toEqual([
      { ok: false, failure: { reason: 'source-missing', fileName: 'evening.mp4' } },
    ])
  })
})
