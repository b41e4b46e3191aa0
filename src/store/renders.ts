import type { Edit } from '@/core/model/edit'
import type { HighlightId, RenderId } from '@/core/model/ids'
import { newRecord } from '@/core/model/record'
import type { Render, RenderSettings, RenderState } from '@/core/model/render'
import type { Shape } from '@/core/model/shape'
import { newId, nowStamp } from './clock'
import { database } from './database'
import { readAll } from './readAll'

/** Adds one waiting render for each shape, with the edit exactly as it is now. */
export async function queueRenders(edit: Edit, shapes: readonly Shape[], settings: RenderSettings): Promise<Render[]> {
  const renders = shapes.map((shape): Render => ({ ...newRecord(nowStamp()), id: newId<RenderId>(), highlightId: edit.highlight.id, shape, settings, edit, state: { kind: 'waiting' } }))
  await database().renders.bulkAdd(renders)
  return renders
}

export async function setRenderState(id: RenderId, state: RenderState): Promise<void> {
  await database().renders.update(id, { state, updatedAt: nowStamp() })
}

/** The waiting render that was asked for first. */
export async function nextWaiting(): Promise<Render | undefined> {
  const waiting = await database().renders.where('state.kind').equals('waiting').sortBy('createdAt')
  return readAll('render', waiting).find((r) => !r.deletedAt)
}

export function runningRenders(): Promise<Render[]> {
  return database().renders.where('state.kind').equals('running').toArray()
}

/** How many renders of a highlight in a shape came before `render`: part of its file name, so that no two are the same. */
export async function versionOf(render: Render): Promise<number> {
  const same = await database().renders.where('highlightId').equals(render.highlightId).toArray()
  return same.filter((r) => r.shape.id === render.shape.id && r.state.kind === 'finished').length + 1
}

export async function deleteRender(id: RenderId): Promise<void> {
  await database().renders.delete(id)
}

const RANK = { running: 0, waiting: 1, failed: 2, finished: 2 } as const

/** Every render: the one at work first, then those that wait in their order, then what has ended, newest first. */
export async function allRenders(): Promise<Render[]> {
  const all = readAll('render', await database().renders.orderBy('createdAt').toArray())
  const order = (r: Render) => RANK[r.state.kind]
  return all.sort((a, b) => order(a) - order(b) || (order(a) === 2 ? b.updatedAt.localeCompare(a.updatedAt) : a.createdAt.localeCompare(b.createdAt)))
}

export function rendersOf(highlightId: HighlightId): Promise<Render[]> {
  return database().renders.where('highlightId').equals(highlightId).toArray()
}
