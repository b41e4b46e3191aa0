import { writeBundle } from '@/core/interchange/bundle'
import { usedFiles, usedRecordings } from '@/core/model/edit'
import type { RenderId } from '@/core/model/ids'
import type { Render, RenderState } from '@/core/model/render'
import { nameBy } from '@/core/output/fileName'
import { frameCount } from '@/core/time/frameRate'
import { outputLength } from '@/core/time/timeMap'
import { explain, quietly } from '@/diagnostics/note'
import { makeBundle } from '@/media/bundle/writeBundle'
import { speechOf } from '@/store/analyses'
import { readOutboxSettings } from '@/store/outboxSettings'
import { storedFile } from '@/store/recordings'
import { awayRenders, moveOn, versionOf } from '@/store/renders'
import { keepDoing } from '@/shared/oneTab'
import { forgetProgress, renderProgress } from '@/shared/rendering/progress'
import { NodesAway, postJob, putBundle, standingAway, takeJobBack, type AwayJob, type JobSource } from './nodesClient'
import { wording } from '../wording'

/** One tab asks after what is away. */
const LOCK = 'brimble-away'
const ASKS_EVERY_MS = 2000
const ASKED_AT_ONCE = 100

/** What the queue does not know may still be on its way there; after so long it is gone. */
const GONE_AFTER_MS = 120_000

/**
 * Hands waiting renders to the render nodes, under their own ids: however often it is asked for, one file is made.
 * Rejects, in words, at the first that could not be; it waits here as before.
 */
export async function handOver(renders: readonly Render[]): Promise<void> {
  const { namePattern } = await readOutboxSettings()
  const today = new Date().toISOString().slice(0, 10)
  for (const render of renders) {
    const { edit, settings } = render
    // Taken first: it must not begin here while it is on its way.
    if (!(await moveOn(render.id, 'waiting', { kind: 'away' }))) continue
    try {
      await postJob(
        render,
        nameBy(namePattern, render, await versionOf(render), today),
        frameCount(outputLength(edit.highlight), settings.frameRate),
        await sourceOf(render),
      )
    } catch (error) {
      await moveOn(render.id, 'away', { kind: 'waiting' })
      throw new Error(
        error instanceof NodesAway
          ? 'The render nodes’ queue does not answer. Everything waits here as before.'
          : `“${edit.highlight.name}” could not be handed over: ${explain('following render nodes', error)}. It waits here as before.`,
      )
    }
  }
}

/** Nodes have the recordings; pictures, sounds and fonts of an edit go along with it. */
async function sourceOf({ edit }: Render): Promise<JobSource> {
  const speech = await speechOf(usedRecordings(edit))
  const used = usedFiles(edit)
  if (used.length === 0) return { text: writeBundle([edit], speech) }
  const files = new Map<string, Blob>()
  for (const { id, fileName } of used) {
    const stored = await storedFile(id)
    if (!stored.ok) throw new Error(`“${fileName}” was not found`)
    files.set(id, stored.file)
  }
  const bundle = await putBundle(
    await makeBundle({ edits: [edit], speechOf: speech, rack: null, media: 'none', files }, () => {}),
  )
  if (!bundle)
    throw new Error(
      'it has pictures, sounds or fonts of its own, and the server was not told where nodes would find them (BRIMBLE_MEDIA)',
    )
  return { bundle }
}

/** Takes a render back from the nodes; it waits here then. False when a node is at work on it. */
export async function takeBack(id: RenderId): Promise<boolean> {
  if (!(await takeJobBack(id))) return false
  forgetProgress(id)
  await moveOn(id, 'away', { kind: 'waiting' })
  return true
}

/** Keeps what is away up to date while the application is open in some tab. Does nothing when it is already started. */
export function startFollowing(): void {
  keepDoing({
    lock: LOCK,
    round: async () => {
      const away = await awayRenders()
      // Whatever goes wrong now is asked again in a moment.
      for (let n = 0; n < away.length; n += ASKED_AT_ONCE)
        await follow(away.slice(n, n + ASKED_AT_ONCE)).catch(quietly('following render nodes'))
      await new Promise((resolve) => setTimeout(resolve, ASKS_EVERY_MS))
    },
  })
}

async function follow(away: readonly Render[]): Promise<void> {
  for (const job of await standingAway(away.map((r) => r.id))) {
    const id = job.id as RenderId
    const handedOverAt = Date.parse(away.find((r) => r.id === id)?.updatedAt ?? '')
    const ended = job.state === 'unknown' && Date.now() - handedOverAt < GONE_AFTER_MS ? null : endOf(job)
    if (ended) {
      forgetProgress(id)
      await moveOn(id, 'away', ended)
    } else if (job.progress) renderProgress.setState({ [id]: job.progress })
  }
}

function endOf({ state, made, failedReason, attempts }: AwayJob): RenderState | null {
  if (state === 'completed') return made ? { kind: 'made-away', ...made } : failedAway(wording.itWasMadeAndWhat)
  if (state === 'failed')
    return failedAway(
      `${failedReason ?? wording.noReasonWasGiven}, ${attempts === 1 ? wording.triedOnce : wording.triedTimes(attempts)}`,
    )
  return state === 'unknown' ? failedAway(wording.theNodesQueueDoesNot) : null
}

const failedAway = (detail: string): RenderState => ({
  kind: 'failed',
  failure: { reason: 'nodes-failed', detail: detail.slice(0, 2000) },
})
