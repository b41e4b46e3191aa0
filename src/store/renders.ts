import type { Edit } from '@/core/model/edit'
import type { BatchId, HighlightId, RenderId } from '@/core/model/ids'
import { newRecord } from '@/core/model/record'
import type { Render, RenderSettings, RenderState } from '@/core/model/render'
import type { Shape } from '@/core/model/shape'
import { newId } from '@/core/model/ids'
import { nowStamp } from './clock'
import { database } from './database'
import { readAll } from './readAll'

/** A render that a closed tab or a crash has cut short so often is not begun again unasked: it may be what crashes. */
export const MAX_INTERRUPTIONS = 6

/**
 * Adds one waiting render for each shape, with the edit exactly as it is now, at the end of the queue. They are made
 * in one go where they can be.
 */
export async function queueRenders(
  edit: Edit,
  wanted: readonly { shape: Shape; settings: RenderSettings }[],
  outletName: string | null = null,
): Promise<Render[]> {
  const table = database().renders
  return database().transaction('rw', table, async () => {
    const last = Math.max(0, ...(await table.toArray()).map((r) => r.order ?? 0))
    const batchId = newId<BatchId>()
    const renders = wanted.map(({ shape, settings }, n): Render => ({
      ...newRecord(nowStamp()),
      id: newId<RenderId>(),
      highlightId: edit.highlight.id,
      shape,
      batchId,
      order: last + n + 1,
      interruptions: 0,
      outletName,
      settings,
      edit,
      state: { kind: 'waiting' },
    }))
    await table.bulkAdd(renders)
    return renders
  })
}

export async function setRenderState(id: RenderId, state: RenderState): Promise<void> {
  await database().renders.update(id, { state, updatedAt: nowStamp() })
}

/**
 * Moves a render on from the state it is thought to be in; false when it is in that no more. Of two who ask at once,
 * one is told true.
 */
export async function moveOn(id: RenderId, from: RenderState['kind'], state: RenderState): Promise<boolean> {
  const table = database().renders
  return database().transaction('rw', table, async () => {
    if ((await table.get(id))?.state.kind !== from) return false
    await table.update(id, { state, updatedAt: nowStamp() })
    return true
  })
}

/** The renders that are with render nodes. */
export async function awayRenders(): Promise<Render[]> {
  return readAll('render', await database().renders.where('state.kind').equals('away').toArray())
}

/** Puts a render that failed back into the queue, as if it had never been cut short. */
export async function waitAgain(id: RenderId): Promise<void> {
  await database().renders.update(id, { state: { kind: 'waiting' }, interruptions: 0, updatedAt: nowStamp() })
}

const inQueueOrder = (a: Render, b: Render) => a.order - b.order || a.createdAt.localeCompare(b.createdAt)

const waiting = () => database().renders.where('state.kind').equals('waiting')

export async function countWaiting(): Promise<number> {
  return waiting().count()
}

/**
 * The first of the renders that wait and what was asked for at one time with it, in the order of the queue. The
 * others are not read: each carries a whole edit.
 */
export async function firstWaiting(): Promise<Render[]> {
  const all = (await waiting().toArray()).sort(inQueueOrder)
  for (const batch of new Set(all.map((r) => r.batchId ?? r.id))) {
    const renders = readAll(
      'render',
      all.filter((r) => (r.batchId ?? r.id) === batch),
    )
    // What cannot be read does not hold up what comes after it.
    if (renders.length > 0) return renders
  }
  return []
}

/**
 * What a closed tab or a crash has cut short waits again, in its place; what was cut short again and again has
 * failed. Only for whoever alone renders.
 */
export async function resumeInterrupted(): Promise<void> {
  const table = database().renders
  await database().transaction('rw', table, async () => {
    for (const { id, interruptions = 0 } of await table.where('state.kind').equals('running').toArray()) {
      const state: RenderState =
        interruptions + 1 < MAX_INTERRUPTIONS
          ? { kind: 'waiting' }
          : { kind: 'failed', failure: { reason: 'interrupted' } }
      await table.update(id, { state, interruptions: interruptions + 1, updatedAt: nowStamp() })
    }
  })
}

/** Puts renders that wait into this order, from the earliest of their places on. */
export async function orderRenders(ids: readonly RenderId[]): Promise<void> {
  const table = database().renders
  await database().transaction('rw', table, async () => {
    const renders = (await table.bulkGet([...ids])).filter((r) => r !== undefined)
    const places = renders.map((r) => r.order ?? 0).sort((a, b) => a - b)
    // Renders of older versions have no places of their own.
    const first = places[0] ?? 0
    for (const [n, id] of ids.entries())
      await table.update(id, {
        order: new Set(places).size === places.length ? (places[n] ?? first) : first + n / 1000,
      })
  })
}

/**
 * How many renders of a highlight in a shape came before `render`: part of its file name, so that no two are the
 * same.
 */
export async function versionOf(render: Render): Promise<number> {
  const same = await database().renders.where('highlightId').equals(render.highlightId).toArray()
  return same.filter((r) => r.shape.id === render.shape.id && r.state.kind === 'finished').length + 1
}

/** The names of all finished files, lower case: no two are to be alike. */
export async function takenFileNames(): Promise<Set<string>> {
  const finished = await database().renders.where('state.kind').equals('finished').toArray()
  return new Set(finished.flatMap((r) => (r.state.kind === 'finished' ? [r.state.file.fileName.toLowerCase()] : [])))
}

export async function renderIds(): Promise<Set<string>> {
  return new Set(await database().renders.toCollection().primaryKeys())
}

export async function renderById(id: RenderId): Promise<Render | undefined> {
  return readAll('render', [await database().renders.get(id)])[0]
}

export async function deleteRender(id: RenderId): Promise<void> {
  await database().renders.delete(id)
}

const RANK = { running: 0, away: 0, waiting: 1, failed: 2, finished: 2, 'made-away': 2 } as const

/**
 * Every render that is not in the bin: those at work first, then those that wait in their order, then what has ended,
 * newest first.
 */
export async function allRenders(): Promise<Render[]> {
  const all = readAll('render', await database().renders.orderBy('createdAt').toArray()).filter((r) => !r.deletedAt)
  const rank = (r: Render) => RANK[r.state.kind]
  return all.sort(
    (a, b) => rank(a) - rank(b) || (rank(a) === 2 ? b.updatedAt.localeCompare(a.updatedAt) : inQueueOrder(a, b)),
  )
}

/** The renders of a highlight that are not in the bin. */
export async function rendersOf(highlightId: HighlightId): Promise<Render[]> {
  return (await database().renders.where('highlightId').equals(highlightId).toArray()).filter((r) => !r.deletedAt)
}
