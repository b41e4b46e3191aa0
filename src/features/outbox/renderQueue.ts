import { proxy, releaseProxy, wrap } from 'comlink'
import { createStore } from 'zustand/vanilla'
import { usedFiles, usedRecordings } from '@/core/model/edit'
import type { RenderId } from '@/core/model/ids'
import type { Render, RenderState } from '@/core/model/render'
import { deleteRenderFile, sweepPartFiles } from '@/media/render/partFile'
import type { RenderProgress } from '@/media/render/renderHighlight'
import type { RenderReply, RenderWorker } from '@/media/workers/render.protocol'
import { speechOf } from '@/store/analyses'
import { storedFile } from '@/store/recordings'
import { fileSafe } from '@/ui/offerDownload'
import { deleteRender, nextWaiting, runningRenders, setRenderState, versionOf } from '@/store/renders'

/** One tab renders at a time: whoever holds this lock. The others' renders wait for it. */
const LOCK = 'brimble-render'

/** Progress of the renders that this tab is making. Kept out of the store: it is of no use after a reload. */
export const renderProgress = createStore<Record<RenderId, RenderProgress>>(() => ({}))

let started = false
let running: { id: RenderId; cancel: () => void } | null = null
let wake: () => void = () => {}

/** Starts working on waiting renders, as soon as no other tab does. Does nothing when it is already started. */
export function startRenderQueue(): void {
  if (started) return
  started = true
  void navigator.locks.request(LOCK, async () => {
    await sweepInterrupted()
    for (;;) {
      const next = await nextWaiting()
      if (next) await run(next)
      else await new Promise<void>((resolve) => (wake = resolve))
    }
  })
}

/** Tells the queue that something is waiting. */
export function wakeRenderQueue(): void {
  wake()
}

/** Ends a render that is running, or takes one that is waiting out of the queue; nothing of it is left. */
export async function cancelRender(render: Render): Promise<void> {
  if (running?.id === render.id) running.cancel()
  else await removeRender(render)
}

export async function removeRender(render: Render): Promise<void> {
  if (render.state.kind === 'finished') await deleteRenderFile(privateName(render))
  await deleteRender(render.id)
}

/** Puts a render that failed back into the queue. */
export async function retryRender(render: Render): Promise<void> {
  await setRenderState(render.id, { kind: 'waiting' })
  wake()
}

/** The name of a render's file in the browser's private folder. */
export function privateName(render: Render): string {
  return render.id
}

/** Whoever holds the lock runs alone: what is still marked as running was cut short by a closed tab or a crash. */
async function sweepInterrupted(): Promise<void> {
  for (const render of await runningRenders()) await setRenderState(render.id, { kind: 'failed', failure: { reason: 'interrupted' } })
  await sweepPartFiles()
}

async function run(render: Render): Promise<void> {
  await setRenderState(render.id, { kind: 'running' })
  const files = new Map<string, Blob>()
  for (const { id, fileName } of [...usedRecordings(render.edit), ...usedFiles(render.edit)]) {
    const found = await storedFile(id)
    if (!found.ok) return setRenderState(render.id, { kind: 'failed', failure: { reason: 'source-missing', fileName } })
    files.set(id, found.file)
  }
  const reply = await renderInWorker(render, files)
  renderProgress.setState((all) => Object.fromEntries(Object.entries(all).filter(([id]) => id !== render.id)), true)
  if (reply.kind === 'cancelled') await deleteRender(render.id)
  else await setRenderState(render.id, await stateAfter(render, reply))
}

async function renderInWorker(render: Render, files: ReadonlyMap<string, Blob>): Promise<RenderReply> {
  const worker = new Worker(new URL('../../media/workers/render.worker.ts', import.meta.url), { type: 'module' })
  const remote = wrap<RenderWorker>(worker)
  running = { id: render.id, cancel: () => void remote.cancel() }
  const crashed = new Promise<RenderReply>((resolve) => {
    worker.onerror = (event) => resolve({ kind: 'failed', failure: { reason: 'broken', detail: event.message || 'the render worker stopped' } })
  })
  try {
    const onProgress = proxy((progress: RenderProgress) => renderProgress.setState({ [render.id]: progress }))
    const { edit, shape, settings } = render
    const job = { edit, shape, settings, files, speechOf: await speechOf(usedRecordings(edit)) }
    return await Promise.race([remote.render(job, privateName(render), onProgress), crashed])
  } catch (error) {
    return { kind: 'failed', failure: { reason: 'broken', detail: error instanceof Error ? error.message : String(error) } }
  } finally {
    running = null
    remote[releaseProxy]()
    worker.terminate()
  }
}

async function stateAfter(render: Render, reply: Exclude<RenderReply, { kind: 'cancelled' }>): Promise<RenderState> {
  if (reply.kind === 'failed') return { kind: 'failed', failure: reply.failure }
  const version = await versionOf(render)
  const fileName = `${fileSafe(render.edit.highlight.name)} ${render.shape.id} ${version}.${reply.file.container}`
  return { kind: 'finished', file: { ...reply.file, sizeBytes: reply.sizeBytes, fileName } }
}

/** Whether this tab is in the middle of a render, which closing it would cut short. */
export function isRendering(): boolean {
  return running !== null
}
