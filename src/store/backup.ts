import type { Table } from 'dexie'
import { BACKUP_KINDS, type BackupRecords } from '@/core/interchange/backup'
import type { HighlightId, RecordingId } from '@/core/model/ids'
import type { RecordKind } from '@/core/model/migrate'
import type { Post } from '@/core/model/post'
import type { Version } from '@/core/model/version'
import { readAll } from './readAll'
import { nowStamp } from './clock'
import { database, type FileOwner } from './database'
import { loadEdit } from './highlights'
import { holdFile, storedFile } from './recordings'
import { tableOf } from './tableOf'
import { newVersion } from './versions'
import { withRoom } from './withRoom'

type AnyRecord = { id: string; updatedAt: string }

const anyTableOf = (kind: RecordKind) => tableOf(kind) as unknown as Table<AnyRecord, string>

/**
 * Every record that can be read, what lies in the bin too. Of renders those that are finished, where `withRenders`,
 * with the posts that they go out as; else neither.
 */
export async function allRecords(withRenders: boolean): Promise<BackupRecords> {
  const records = {} as Record<RecordKind, AnyRecord[]>
  await database().transaction(
    'r',
    BACKUP_KINDS.map((kind) => anyTableOf(kind)),
    async () => {
      for (const kind of BACKUP_KINDS) records[kind] = readAll(kind, await anyTableOf(kind).toArray())
    },
  )
  const all = records as unknown as BackupRecords
  const finished = withRenders ? all.render.filter((r) => r.state.kind === 'finished') : []
  return { ...all, render: finished, post: all.post.filter((p) => finished.some((r) => r.id === p.renderId)) }
}

/**
 * *add*: what is here stays as it is. *as-it-was*: what is here in another state becomes as it was; what the backup
 * does not know stays.
 */
export type RestoreMode = 'add' | 'as-it-was'

export interface Restored {
  added: number
  /** Records that became as they were. */
  changed: number
  /** Records that are here in another state, and stayed so. */
  stayed: number
}

/**
 * Bytes of a backup that go into the database: of recordings, sounds, pictures and fonts by their ids, and captions
 * that came with a recording.
 */
export interface RestoredFiles {
  files: ReadonlyMap<FileOwner, File>
  captions: ReadonlyMap<RecordingId, File>
}

/**
 * Puts records and bytes back in one transaction: all of it, or nothing. A highlight that is changed is kept as a
 * version first; bytes that are here stay. Rejects when the disk is full.
 */
export async function restoreBackup(
  records: BackupRecords,
  { files, captions }: RestoredFiles,
  mode: RestoreMode,
  madeAt: string,
): Promise<Restored> {
  const versions = mode === 'as-it-was' ? await versionsOfChanged(records.highlight, madeAt) : []
  const lost = await lostOf([...files.keys()])
  const db = database()
  const tables = [...BACKUP_KINDS.map((kind) => anyTableOf(kind)), db.undo, db.files, db.captionTexts]
  const restored = await withRoom(() =>
    db.transaction('rw', tables, async () => {
      const restored: Restored = { added: 0, changed: 0, stayed: 0 }
      await db.versions.bulkAdd(versions)
      for (const kind of BACKUP_KINDS) {
        const there = new Map(
          (await anyTableOf(kind).bulkGet(records[kind].map((r) => r.id))).flatMap((r) =>
            r ? [[r.id, r] as const] : [],
          ),
        )
        for (const raw of records[kind]) {
          const record = kind === 'post' ? notSentAgain(raw as Post) : raw
          const here = there.get(record.id)
          if (!here) restored.added++
          else if (here.updatedAt === record.updatedAt) continue
          else if (mode === 'add' || (here as Partial<Post>).state?.kind === 'posted') {
            restored.stayed++
            continue
          } else restored.changed++
          await anyTableOf(kind).put(record)
          // The steps that led to another state do not lead to this one.
          if (kind === 'highlight' || kind === 'spotting') await db.undo.delete(record.id as HighlightId | RecordingId)
        }
      }
      for (const owner of lost) await db.files.put({ owner, kind: 'kept', blob: files.get(owner) as File })
      for (const [recordingId, file] of captions)
        if (!(await db.captionTexts.get(recordingId)))
          await db.captionTexts.put({ recordingId, fileName: file.name, blob: file })
      return restored
    }),
  )
  for (const owner of lost) holdFile(owner, files.get(owner) as File)
  return restored
}

/**
 * Of bytes that came along those that are not here, or not any more. Files are looked at before the transaction,
 * which reading them would end.
 */
async function lostOf(owners: readonly FileOwner[]): Promise<FileOwner[]> {
  const lost: FileOwner[] = []
  for (const owner of owners) {
    const there = await storedFile(owner)
    if (!there.ok && there.reason === 'gone') lost.push(owner)
  }
  return lost
}

async function versionsOfChanged(was: BackupRecords['highlight'], madeAt: string): Promise<Version[]> {
  const versions: Version[] = []
  for (const { id, updatedAt } of was) {
    const loaded = await loadEdit(id)
    if (loaded.ok && loaded.edit.highlight.updatedAt !== updatedAt)
      versions.push(newVersion(loaded.edit, `Before the backup of ${madeAt.slice(0, 10)} was put back`))
  }
  return versions
}

/** A post whose time has gone by may have gone out since: it waits for a person, so that nothing is posted twice. */
function notSentAgain(post: Post): Post {
  if (post.state.kind === 'posted' || post.dueAt > nowStamp())
    return post.state.kind === 'sending' ? { ...post, state: { kind: 'planned' } } : post
  return {
    ...post,
    state: {
      kind: 'failed',
      reason: 'offline',
      detail: 'It came back with a backup after its time. See whether it has gone out before you try again.',
      attempts: 1,
      again: null,
    },
  }
}
