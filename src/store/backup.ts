import type { Table } from 'dexie'
import { BACKUP_KINDS, type BackupRecords } from '@/core/interchange/backup'
import type { HighlightId, RecordingId } from '@/core/model/ids'
import type { RecordKind } from '@/core/model/migrate'
import type { Post } from '@/core/model/post'
import { readAll } from './readAll'
import { nowStamp } from './clock'
import { database } from './database'
import { loadEdit } from './highlights'
import { keepVersion } from './versions'

type AnyRecord = { id: string; updatedAt: string }

function tables(): Record<RecordKind, Table<AnyRecord, string>> {
  const db = database()
  const { recordings: recording, soundFiles: soundFile, imageFiles: imageFile, fontFiles: fontFile, brands: brand, outlets: outlet, setups: setup, layouts: layout, recipes: recipe, highlights: highlight, versions: version, spottings: spotting, renderPresets: renderPreset, renders: render, posts: post } = db
  return { recording, soundFile, imageFile, fontFile, brand, outlet, setup, layout, recipe, highlight, version, spotting, renderPreset, render, post } as unknown as Record<RecordKind, Table<AnyRecord, string>>
}

/** Every record that can be read, what lies in the bin too. Of renders those that are finished, where `withRenders`, with the posts that they go out as; else neither. */
export async function allRecords(withRenders: boolean): Promise<BackupRecords> {
  const by = tables()
  const records = {} as Record<RecordKind, AnyRecord[]>
  await database().transaction('r', BACKUP_KINDS.map((kind) => by[kind] as Table), async () => {
    for (const kind of BACKUP_KINDS) records[kind] = readAll(kind, await by[kind].toArray())
  })
  const all = records as unknown as BackupRecords
  const finished = withRenders ? all.render.filter((r) => r.state.kind === 'finished') : []
  return { ...all, render: finished, post: all.post.filter((p) => finished.some((r) => r.id === p.renderId)) }
}

/** *add*: what is here stays as it is. *as-it-was*: what is here in another state becomes as it was; what the backup does not know stays. */
export type RestoreMode = 'add' | 'as-it-was'

export interface Restored {
  added: number
  /** Records that became as they were. */
  changed: number
  /** Records that are here in another state, and stayed so. */
  stayed: number
}

/** Puts records back, in one transaction. A highlight that is changed is kept as a version first. Files are put back apart. */
export async function restoreRecords(records: BackupRecords, mode: RestoreMode, madeAt: string): Promise<Restored> {
  if (mode === 'as-it-was') await keepChangedHighlights(records.highlight, madeAt)
  const by = tables()
  const db = database()
  const restored: Restored = { added: 0, changed: 0, stayed: 0 }
  await db.transaction('rw', [...BACKUP_KINDS.map((kind) => by[kind] as Table), db.undo], async () => {
    for (const kind of BACKUP_KINDS) {
      const there = new Map((await by[kind].bulkGet(records[kind].map((r) => r.id))).flatMap((r) => (r ? [[r.id, r] as const] : [])))
      for (const raw of records[kind]) {
        const record = kind === 'post' ? notSentAgain(raw as Post) : raw
        const here = there.get(record.id)
        if (!here) restored.added++
        else if (here.updatedAt === record.updatedAt) continue
        else if (mode === 'add' || (here as Partial<Post>).state?.kind === 'posted') {
          restored.stayed++
          continue
        } else restored.changed++
        await by[kind].put(record)
        // The steps that led to another state do not lead to this one.
        if (kind === 'highlight' || kind === 'spotting') await db.undo.delete(record.id as HighlightId | RecordingId)
      }
    }
  })
  return restored
}

async function keepChangedHighlights(was: BackupRecords['highlight'], madeAt: string): Promise<void> {
  for (const { id, updatedAt } of was) {
    const loaded = await loadEdit(id)
    if (loaded.ok && loaded.edit.highlight.updatedAt !== updatedAt) await keepVersion(loaded.edit, `Before the backup of ${madeAt.slice(0, 10)} was put back`)
  }
}

/** A post whose time has gone by may have gone out since: it waits for a person, so that nothing is posted twice. */
function notSentAgain(post: Post): Post {
  if (post.state.kind === 'posted' || post.dueAt > nowStamp()) return post.state.kind === 'sending' ? { ...post, state: { kind: 'planned' } } : post
  return { ...post, state: { kind: 'failed', reason: 'offline', detail: 'It came back with a backup after its time. See whether it has gone out before you try again.', attempts: 1, again: null } }
}
