import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { RecordingId, RenderId } from '@/core/model/ids'
import type { Render, RenderSettings } from '@/core/model/render'
import type { RenderJob } from '@/media/render/renderJob'
import type { RenderReply } from '@/media/workers/render.protocol'
import { database } from '@/store/database'
import { changeOutboxSettings } from '@/store/outboxSettings'
import { allRenders, queueRenders } from '@/store/renders'
import { tellOfOpening } from '@/shared/opening'
import { sampleEdit } from '../../../tests/support/edits'
import { cancelRender, isRendering, retryRender, startRenderQueue } from './renderQueue'

const AGENT = 'a browser'
vi.stubGlobal('navigator', { userAgent: AGENT })
vi.stubGlobal('window', new EventTarget())

/** What the queue does in the one tab that holds the lock. */
let chore: { begin: () => Promise<void>; round: () => Promise<void> }
vi.mock('@/shared/oneTab', () => ({ keepDoing: (given: typeof chore) => (chore = given) }))
vi.mock('@/media/render/partFile', () => ({ sweepRenderFiles: async () => {} }))
const { saved, told } = vi.hoisted(() => ({ saved: [] as string[], told: [] as object[] }))
vi.mock('@/shared/rendering/filesFolder', () => ({ saveFinished: async (id: string) => void saved.push(id) }))
vi.mock('@/shared/rendering/notify', () => ({ tellThatQueueIsDone: async (made: object) => void told.push(made) }))

/** What becomes of each file of a job; the worker tells of one after the other. */
let outcome: (id: RenderId, job: RenderJob) => RenderReply | Promise<RenderReply>
const worker = {
  jobs: [] as RenderJob[],
  dropped: [] as RenderId[],
  drop: (id: RenderId) => void worker.dropped.push(id),
  held: [] as boolean[],
  hold: (on: boolean) => void worker.held.push(on),
  render: async (job: RenderJob, _: unknown, onEnd: (id: RenderId, reply: RenderReply) => Promise<void>) => {
    worker.jobs.push(job)
    for (const { id } of job.wanted) await onEnd(id, await outcome(id, job))
  },
}
vi.mock('@/media/render/renderInWorker', () => ({
  withRenderWorker: <T>(work: (remote: typeof worker) => Promise<T>) => work(worker),
}))

const FILE = {
  container: 'mp4',
  videoCodec: 'avc',
  audioCodec: 'aac',
  width: 1080,
  height: 1920,
  frames: 300,
  durationMicros: 10_000_000,
  tookMs: 10,
  copiedFrames: 0,
  stages: null,
} as unknown as Extract<RenderReply, { kind: 'finished' }>['file']
const FINISHED: RenderReply = { kind: 'finished', file: FILE, sizeBytes: 5 } as RenderReply

const SETTINGS = { frameRate: { num: 30, den: 1 }, videoBitrate: 8_000_000, audioBitrate: 128_000 } as RenderSettings
const wanted = (...ids: string[]) =>
  ids.map((id) => ({ shape: { id, width: 1080, height: 1920 }, settings: { ...SETTINGS, loudness: null } as never }))
/** In the order in which they were asked for. */
const states = async () =>
  (await allRenders()).sort((a, b) => (a.order ?? 0) - (b.order ?? 0)).map((r) => [r.shape.id, r.state.kind])

startRenderQueue()

beforeEach(async () => {
  await Promise.all(database().tables.map((table) => table.clear()))
  for (const list of [worker.jobs, worker.dropped, worker.held, saved, told]) list.length = 0
  outcome = () => FINISHED
  await changeOutboxSettings({ measured: { agent: AGENT, canvasMs: 1, planesMs: null, gpuMs: null } })
  await database().files.put({ owner: 'r' as RecordingId, kind: 'kept', blob: new Blob(['a recording']) })
})

describe('the render queue', () => {
  it('makes the files of one edit in one go, gives them names, saves them, and tells when all is done', async () => {
    await queueRenders(sampleEdit(), wanted('tall', 'square'))
    await chore.round()
    expect(worker.jobs.map((j) => j.wanted.map((w) => w.shape.id))).toEqual([['tall', 'square']])
    expect(worker.jobs[0]?.files.size).toBe(1)
    const names = (await allRenders()).map((r) => (r.state.kind === 'finished' ? r.state.file.fileName : r.state.kind))
    expect(new Set(names).size).toBe(2)
    expect(names.every((name) => name.startsWith('Last gate') && name.endsWith('.mp4'))).toBe(true)
    expect(saved).toHaveLength(2)
    expect(isRendering()).toBe(false)
    // The next round finds nothing left and says so, once; it then waits for news.
    void chore.round()
    await vi.waitFor(() => expect(told).toEqual([{ finished: 2, failed: 0 }]))
  })

  it('lets one of several fail with its reason, and makes the others; it can be asked for again', async () => {
    await queueRenders(sampleEdit(), wanted('tall', 'square'))
    const failure = { reason: 'encoder-refuses-size', width: 1080, height: 1920 } as const
    outcome = (id, job) => (job.wanted[0]?.id === id ? { kind: 'failed', failure } : FINISHED)
    await chore.round()
    const [failed] = (await allRenders()).filter((r) => r.state.kind === 'failed')
    expect(failed?.state).toEqual({ kind: 'failed', failure })
    outcome = () => FINISHED
    await retryRender(failed as Render)
    await chore.round()
    expect((await states()).map(([, kind]) => kind)).toEqual(['finished', 'finished'])
  })

  it('makes a file again where there was no room and preview copies could go, once', async () => {
    await database().previewCopies.put({ recordingId: 'r' as RecordingId, index: 0, file: new Blob(['a']), usedAt: 1 })
    await queueRenders(sampleEdit(), wanted('tall'))
    outcome = () => ({ kind: 'failed', failure: { reason: 'no-room', neededBytes: null } })
    await chore.round()
    expect(await states()).toEqual([['tall', 'waiting']])
    expect(await database().previewCopies.count()).toBe(0)
    await chore.round()
    expect(await states()).toEqual([['tall', 'failed']])
    expect(worker.jobs).toHaveLength(2)
  })

  it('says which recording is missing, without starting a worker', async () => {
    await database().files.clear()
    await queueRenders(sampleEdit(), wanted('tall'))
    await chore.round()
    expect(worker.jobs).toEqual([])
    const [render] = await allRenders()
    expect(render?.state).toMatchObject({ kind: 'failed', failure: { reason: 'source-missing' } })
  })

  it('lets the files that were not finished fail when their worker breaks down', async () => {
    await queueRenders(sampleEdit(), wanted('tall', 'square'))
    outcome = (id, job) => {
      if (job.wanted[0]?.id === id) return FINISHED
      throw new Error('out of memory')
    }
    await chore.round()
    expect(await states()).toEqual([
      ['tall', 'finished'],
      ['square', 'failed'],
    ])
  })

  it('makes what a crash cut short again, in its place, and not what was taken out meanwhile', async () => {
    const [first, second] = await queueRenders(sampleEdit(), wanted('tall', 'square'))
    if (!first || !second) throw new Error('two')
    await database().renders.update(first.id, { state: { kind: 'running' } })
    await chore.begin()
    expect(await states()).toEqual([
      ['tall', 'waiting'],
      ['square', 'waiting'],
    ])
    await cancelRender(second)
    await chore.round()
    expect(await states()).toEqual([['tall', 'finished']])
  })

  it('drops a file that is at work when it is cancelled, and leaves nothing of it', async () => {
    const [first] = await queueRenders(sampleEdit(), wanted('tall', 'square'))
    outcome = async (id) => {
      if (id !== first?.id) return FINISHED
      await cancelRender(first)
      return { kind: 'cancelled' } as RenderReply
    }
    await chore.round()
    expect(worker.dropped).toEqual([first?.id])
    expect(await states()).toEqual([['square', 'finished']])
  })

  it('gives way while another tab opens a screen, and goes on when that is open', async () => {
    await queueRenders(sampleEdit(), wanted('tall'))
    outcome = async () => {
      const isOpen = tellOfOpening()
      await vi.waitFor(() => expect(worker.held.at(-1)).toBe(true))
      isOpen()
      await vi.waitFor(() => expect(worker.held.at(-1)).toBe(false))
      return FINISHED
    }
    await chore.round()
    expect(await states()).toEqual([['tall', 'finished']])
  })

  it('begins nothing while it is held', async () => {
    await changeOutboxSettings({ held: true })
    await queueRenders(sampleEdit(), wanted('tall'))
    void chore.round()
    await new Promise((resolve) => setImmediate(resolve))
    expect(await states()).toEqual([['tall', 'waiting']])
    expect(worker.jobs).toEqual([])
  })
})
