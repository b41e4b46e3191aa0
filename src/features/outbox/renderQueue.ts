import { proxy, type Remote } from 'comlink'
import { liveQuery, type Subscription } from 'dexie'
import { usedFiles, usedRecordings } from '@/core/model/edit'
import type { RenderId } from '@/core/model/ids'
import type { Render, RenderFailure } from '@/core/model/render'
import { chosenBackEnd, type BackEnd } from '@/core/output/backEnd'
import { freeFileName, nameBy } from '@/core/output/fileName'
import { nextGroup } from '@/core/output/renderGroups'
import { explain } from '@/diagnostics/note'
import { sweepRenderFiles } from '@/media/render/partFile'
import { withRenderWorker } from '@/media/render/renderInWorker'
import type { RenderProgress } from '@/media/render/renderJob'
import type { RenderReply, RenderWorker } from '@/media/workers/render.protocol'
import { speechOf } from '@/store/analyses'
import { binRender } from '@/store/bin'
import { isStorageFull } from '@/store/database'
import { makeRoom } from '@/store/withRoom'
import { changeOutboxSettings, readOutboxSettings } from '@/store/outboxSettings'
import { storedFile } from '@/store/recordings'
import {
  countWaiting,
  deleteRender,
  firstWaiting,
  moveOn,
  renderIds,
  resumeInterrupted,
  setRenderState,
  takenFileNames,
  versionOf,
  waitAgain,
} from '@/store/renders'
import { keepDoing } from '@/shared/oneTab'
import { onOpening } from '@/shared/opening'
import { saveFinished } from '@/shared/rendering/filesFolder'
import { Bell } from './bell'
import { tellThatQueueIsDone } from '@/shared/rendering/notify'
import { forgetProgress, renderPreparing, renderProgress } from '@/shared/rendering/progress'

/** One tab renders at a time: whoever holds this lock. The others' renders wait for it. */
const LOCK = 'brimble-render'

interface Running {
  left: Set<RenderId>
  drop: (id: RenderId) => void
  hold: (on: boolean) => void
}

let running: Running | null = null
let held = false
/** Whether another tab is opening a screen: what is rendered gives way to it. */
let givingWay = false
/** Whether the page is about to go. */
let leaving = false
/** Other tabs ask for renders, and hold the queue, too. */
let listening: Subscription | null = null
/** What has ended since the queue was empty. */
let made = { finished: 0, failed: 0 }
const news = new Bell()

/** Starts working on waiting renders, as soon as no other tab does. Does nothing when it is already started. */
export function startRenderQueue(): void {
  for (const event of ['beforeunload', 'pagehide']) window.addEventListener(event, () => (leaving = true))
  onOpening((isOpening) => {
    givingWay = isOpening
    holdOrGoOn()
  })
  keepDoing({ lock: LOCK, begin, round })
}

function holdOrGoOn(): void {
  running?.hold(held || givingWay)
}

async function begin(): Promise<void> {
  leaving = false
  // Whoever holds the lock runs alone: what is still marked as running was cut short by a closed tab or a crash.
  await resumeInterrupted()
  await sweepRenderFiles(await renderIds())
  listening ??= liveQuery(async () => ({
    waiting: await countWaiting(),
    held: (await readOutboxSettings()).held,
  })).subscribe((now) => {
    held = now.held
    holdOrGoOn()
    news.ring()
  })
}

/** Works off what goes together and comes first; waits for news where there is nothing. */
async function round(): Promise<void> {
  const group = held || (await readOutboxSettings()).held ? [] : nextGroup(await firstWaiting())
  if (group.length > 0) {
    const ended = await run(group)
    made = { finished: made.finished + ended.finished, failed: made.failed + ended.failed }
    return
  }
  if (made.finished + made.failed > 0 && (await firstWaiting()).length === 0) {
    await tellThatQueueIsDone(made)
    made = { finished: 0, failed: 0 }
  }
  await news.heard()
}

export function isRendering(): boolean {
  return running !== null
}

/** Ends a render that is running, or takes one that is waiting out of the queue; nothing of it is left. */
export async function cancelRender(render: Render): Promise<void> {
  if (running?.left.has(render.id)) running.drop(render.id)
  else await removeRender(render)
}

/** Takes a render out of the Outbox: a finished file goes into the bin, of others nothing is left. */
export async function removeRender(render: Render): Promise<void> {
  if (render.state.kind === 'finished') await binRender(render.id, true)
  else await deleteRender(render.id)
}

/** Puts a render that failed back into the queue. */
export async function retryRender(render: Render): Promise<void> {
  await waitAgain(render.id)
}

/**
 * Makes the files of renders that go together, of those that still wait. Throws when how one of them ended cannot be
 * written down; it is marked as running still.
 */
async function run(planned: readonly Render[]): Promise<{ finished: number; failed: number }> {
  const ended = { finished: 0, failed: 0 }
  renderPreparing.setState({ ids: planned.map((r) => r.id), doing: 'starting' })
  const group: Render[] = []
  for (const render of planned) if (await moveOn(render.id, 'waiting', { kind: 'running' })) group.push(render)
  const open = new Map(group.map((r) => [r.id, r]))
  const endOne = async (id: RenderId, reply: RenderReply) => {
    const render = open.get(id)
    if (!render) return
    running?.left.delete(id)
    forgetProgress(id)
    if (isNoRoom(reply) && (await makeRoom())) {
      // What made room can be made again: this file is tried once more.
      await waitAgain(id)
      return void open.delete(id)
    }
    await settle(render, reply)
    open.delete(id)
    if (reply.kind !== 'cancelled') ended[reply.kind]++
  }
  try {
    const reply = await filesAndRender(group, endOne).catch((error: unknown): RenderReply => ({
      kind: 'failed',
      failure: failureOf(error),
    }))
    if (reply) for (const id of [...open.keys()]) await endOne(id, reply)
  } finally {
    running = null
  }
  return ended
}

const isNoRoom = (reply: RenderReply) => reply.kind === 'failed' && reply.failure.reason === 'no-room'

function failureOf(error: unknown): RenderFailure {
  if (isStorageFull(error)) return { reason: 'no-room', neededBytes: null }
  return { reason: 'broken', detail: explain('a render', error) }
}

async function filesAndRender(
  group: readonly Render[],
  onEnd: (id: RenderId, reply: RenderReply) => Promise<void>,
): Promise<RenderReply | null> {
  const [first] = group
  if (!first) return null
  const files = new Map<string, Blob>()
  for (const { id, fileName } of [...usedRecordings(first.edit), ...usedFiles(first.edit)]) {
    const stored = await storedFile(id)
    if (!stored.ok) return { kind: 'failed', failure: { reason: 'source-missing', fileName } }
    files.set(id, stored.file)
  }
  return renderInWorker(group, first, files, onEnd)
}

function renderInWorker(
  group: readonly Render[],
  { edit }: Render,
  files: ReadonlyMap<string, Blob>,
  onEnd: (id: RenderId, reply: RenderReply) => Promise<void>,
): Promise<null> {
  return withRenderWorker(async (worker) => {
    running = {
      left: new Set(group.map((r) => r.id)),
      drop: (id) => void worker.drop(id),
      hold: (on) => void worker.hold(on),
    }
    // It may have been held while files were being fetched.
    holdOrGoOn()
    const onProgress = proxy((progress: RenderProgress) =>
      renderProgress.setState(Object.fromEntries([...(running?.left ?? [])].map((id) => [id, progress]))),
    )
    const wanted = group.map(({ id, shape, settings }) => ({ id, shape, settings }))
    await worker.render(
      { edit, backEnd: await backEndHere(worker), wanted, files, speechOf: await speechOf(usedRecordings(edit)) },
      onProgress,
      proxy(onEnd),
    )
    return null
  })
}

/** What draws pictures on this machine; measured when a browser renders for the first time. */
async function backEndHere(remote: Pick<Remote<RenderWorker>, 'measure'>): Promise<BackEnd> {
  const { backEnd, measured } = await readOutboxSettings()
  const agent = navigator.userAgent
  if (measured?.agent === agent) return chosenBackEnd(backEnd, measured)
  renderPreparing.setState({ doing: 'measuring' })
  const now = { ...(await remote.measure()), agent }
  renderPreparing.setState({ doing: 'starting' })
  await changeOutboxSettings({ measured: now })
  return chosenBackEnd(backEnd, now)
}

async function settle(render: Render, reply: RenderReply): Promise<void> {
  if (reply.kind === 'cancelled') return deleteRender(render.id)
  // What a page that is being left cuts off under a render is no fault of its recording: it was interrupted.
  if (reply.kind === 'failed' && leaving) throw new Error('the page is being left')
  if (reply.kind === 'failed') return setRenderState(render.id, { kind: 'failed', failure: reply.failure })
  const { namePattern } = await readOutboxSettings()
  const stem = nameBy(namePattern, render, await versionOf(render), new Date().toISOString().slice(0, 10))
  const fileName = freeFileName(stem, reply.file.container, await takenFileNames())
  await setRenderState(render.id, {
    kind: 'finished',
    file: { ...reply.file, sizeBytes: reply.sizeBytes, fileName, savedAs: null },
  })
  await saveFinished(render.id)
}
