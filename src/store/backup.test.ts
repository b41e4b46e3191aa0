import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { sampleEdit } from '../../tests/support/edits'
import { readBackup, writeBackup, type BackupRecords } from '@/core/interchange/backup'
import type { OutletId, RenderId } from '@/core/model/ids'
import { allRecords, restoreBackup, type RestoreMode } from './backup'
import { bringInEdits } from './bringIn'
import { textBeside } from './captionTexts'
import { database } from './database'
import { editSession, loadEdit } from './highlights'
import { allPosts, planPost } from './posts'
import { storedFile } from './recordings'
import { queueRenders, setRenderState } from './renders'
import { versionsOf } from './versions'

const clear = () => Promise.all(database().tables.map((table) => table.clear()))
beforeEach(clear)

const MADE_AT = '2026-11-26T12:00:00.000Z'
const FILE = {
  fileName: 'a.mp4',
  sizeBytes: 9,
  container: 'mp4' as const,
  videoCodec: 'avc',
  audioCodec: null,
  shippedAac: false,
  frames: 1,
  framesTakenOver: 0,
  extras: [],
  savedAs: null,
  tookMs: 1,
  stages: null,
}

const restore = (records: BackupRecords, mode: RestoreMode) =>
  restoreBackup(records, { files: new Map(), captions: new Map() }, mode, MADE_AT)

/** Records as they come out of a backup's file. */
function filed(records: BackupRecords): BackupRecords {
  const read = readBackup(writeBackup(MADE_AT, records, []))
  if (!read.ok) throw new Error(read.reason)
  expect(read.unread).toBe(0)
  return read.records
}

async function shelf() {
  const [highlight] = await bringInEdits({ edits: [sampleEdit()], bytes: new Map(), filed: null })
  if (!highlight) throw new Error('no highlight')
  return highlight
}

async function rename(id: Awaited<ReturnType<typeof shelf>>['id'], name: string) {
  const loaded = await loadEdit(id)
  if (!loaded.ok) throw new Error(loaded.reason)
  await new Promise((r) => setTimeout(r, 2))
  const session = editSession(loaded)
  session.change('Name', 'name', (draft) => void (draft.highlight.name = name))
  await session.flush()
}

describe('a backup', () => {
  it('comes back with its bytes, or not at all', async () => {
    await shelf()
    const records = filed(await allRecords(true))
    const [recording] = records.recording
    if (!recording) throw new Error('no recording')
    const parts = {
      files: new Map([[recording.id, new File(['film'], recording.fileName)]]),
      captions: new Map([[recording.id, new File(['WEBVTT'], 'a.vtt')]]),
    }
    await clear()
    const full = vi.spyOn(database().files, 'put').mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'))
    await expect(restoreBackup(records, parts, 'add', MADE_AT)).rejects.toThrow()
    full.mockRestore()
    for (const table of database().tables)
      expect([table.name, table.name === 'outlets' ? 0 : await table.count()]).toEqual([table.name, 0])
    await restoreBackup(records, parts, 'add', MADE_AT)
    const stored = await storedFile(recording.id)
    expect(stored.ok && (await stored.file.text())).toBe('film')
    expect((await textBeside(recording.id))?.fileName).toBe('a.vtt')
  })

  it('put back into an empty browser gives every record as it was', async () => {
    const { id } = await shelf()
    const before = await loadEdit(id)
    const records = filed(await allRecords(true))
    await clear()
    expect(await restore(records, 'add')).toMatchObject({ changed: 0, stayed: 0 })
    const after = await loadEdit(id)
    expect(after.ok && after.edit).toEqual(before.ok && before.edit)
    expect(await allRecords(true)).toEqual(records)
  })

  it('leaves what is here in another state alone, or makes it as it was and keeps a version of what it became', async () => {
    const { id, name } = await shelf()
    const records = filed(await allRecords(true))
    await rename(id, 'Changed since')
    const added = await restore(records, 'add')
    expect(added).toMatchObject({ added: 0, changed: 0 })
    expect(added.stayed).toBeGreaterThan(0)
    expect(await loadEdit(id)).toMatchObject({ edit: { highlight: { name: 'Changed since' } } })

    expect((await restore(records, 'as-it-was')).changed).toBeGreaterThan(0)
    expect(await loadEdit(id)).toMatchObject({ edit: { highlight: { name } }, steps: [] })
    expect(await versionsOf(id)).toMatchObject([
      { name: 'Before the backup of 2026-11-26 was put back', edit: { highlight: { name: 'Changed since' } } },
    ])
    // What was made since is not taken away.
    const other = await shelf()
    await restore(records, 'as-it-was')
    expect(await loadEdit(other.id)).toMatchObject({ ok: true })
  })

  it('has finished files with their posts only, and never sends a post again by itself', async () => {
    const { id } = await shelf()
    const loaded = await loadEdit(id)
    if (!loaded.ok) throw new Error(loaded.reason)
    const settings = { frameRate: { num: 30, den: 1 }, videoBitrate: 1_000_000, audioBitrate: 96_000 } as Parameters<
      typeof queueRenders
    >[1][number]['settings']
    const shape = { id: 'tall', width: 108, height: 192 }
    const [finished] = await queueRenders(loaded.edit, [
      { shape, settings },
      { shape, settings },
    ])
    const renderId = finished?.id as RenderId
    await setRenderState(renderId, { kind: 'finished', file: FILE })
    const overdue = await planPost({
      renderId,
      outletId: 'story' as OutletId,
      dueAt: '2020-01-01T10:00:00.000Z',
      title: 'Overdue',
      text: '',
    })
    await planPost({
      renderId,
      outletId: 'story' as OutletId,
      dueAt: '2999-01-01T10:00:00.000Z',
      title: 'To come',
      text: '',
    })
    const records = filed(await allRecords(true))
    expect(records.render.map((r) => r.id)).toEqual([renderId])
    expect(await allRecords(false)).toMatchObject({ render: [], post: [] })

    await database().posts.update(overdue.id, {
      state: { kind: 'posted', at: MADE_AT, remoteId: 'x' },
      updatedAt: MADE_AT,
    })
    await restore(records, 'as-it-was')
    expect((await allPosts()).map((p) => p.state.kind)).toEqual(['posted', 'planned'])
    await clear()
    await restore(records, 'add')
    expect((await allPosts()).map((p) => [p.title, p.state.kind])).toEqual([
      ['Overdue', 'failed'],
      ['To come', 'planned'],
    ])
  })

  it('is refused where it is none or of a newer version; damaged records are left out and counted', async () => {
    await shelf()
    const records = await allRecords(true)
    const text = writeBackup(MADE_AT, records, [])
    expect(readBackup('{')).toMatchObject({ ok: false, reason: 'not-json' })
    expect(readBackup('{"brimble":"bundle","version":1}')).toMatchObject({ ok: false, reason: 'not-a-backup' })
    expect(readBackup(text.replace('"version":1', '"version":2'))).toMatchObject({ ok: false, reason: 'newer-version' })
    const newer = {
      ...records,
      setup: records.setup.map((s) => ({ ...s, schemaVersion: 99 })),
    } as unknown as BackupRecords
    expect(readBackup(writeBackup(MADE_AT, newer, []))).toMatchObject({ ok: false, reason: 'newer-version' })
    const damaged = {
      ...records,
      highlight: [...records.highlight, { schemaVersion: 1, name: 5 }],
    } as unknown as BackupRecords
    expect(readBackup(writeBackup(MADE_AT, damaged, []))).toMatchObject({
      ok: true,
      unread: 1,
      records: { highlight: [{ name: 'Last gate' }] },
    })
    for (const entry of ['../x.mp4', 'files/../x.mp4', '/etc/passwd', 'files/x.mp4'])
      expect(
        readBackup(
          writeBackup(MADE_AT, records, [{ kind: 'file', id: 'r', fileName: 'x', type: '', entry, sizeBytes: 1 }]),
        ),
      ).toMatchObject({ ok: false, reason: 'not-a-backup' })
  })
})
