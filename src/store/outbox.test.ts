import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { sampleEdit } from '../../tests/support/edits'
import type { OutletId, RenderId } from '@/core/model/ids'
import { USUAL_OUTPUT } from '@/core/model/outputChoice'
import { USUAL_PATTERN } from '@/core/output/fileName'
import { afterFailure } from '@/core/week/week'
import { bringInEdits } from './bringIn'
import { database } from './database'
import { loadEdit } from './highlights'
import { changeOutboxSettings, readOutboxSettings } from './outboxSettings'
import {
  allPosts,
  changePost,
  deletePost,
  planPost,
  restorePost,
  resumeSending,
  setPostState,
  takeDuePost,
} from './posts'
import { storedFile } from './recordings'
import { allRenderPresets, deleteRenderPreset, keepRenderPreset } from './renderPresets'

beforeEach(async () => {
  await Promise.all(database().tables.map((table) => table.clear()))
})

const NOW = new Date('2026-11-26T12:00:00.000Z')
const plan = (dueAt: string, title = 'Last gate') =>
  planPost({ renderId: 'r' as RenderId, outletId: 'story' as OutletId, dueAt, title, text: '' })

describe('posts', () => {
  it('are taken one at a time when they are due, each by one taker only', async () => {
    await plan('2026-11-26T11:00:00.000Z', 'second')
    await plan('2026-11-26T10:00:00.000Z', 'first')
    await plan('2026-11-26T13:00:00.000Z', 'later')
    const taken = await Promise.all([takeDuePost(NOW), takeDuePost(NOW), takeDuePost(NOW)])
    expect(taken.map((p) => p?.title)).toEqual(['first', 'second', undefined])
    expect((await allPosts()).map((p) => [p.title, p.state.kind])).toEqual([
      ['first', 'sending'],
      ['second', 'sending'],
      ['later', 'planned'],
    ])
  })

  it('that were being sent when a tab was closed are planned again, under the same key', async () => {
    const post = await plan('2026-11-26T10:00:00.000Z')
    await takeDuePost(NOW)
    await resumeSending()
    expect(await takeDuePost(NOW)).toMatchObject({ id: post.id })
  })

  it('that failed wait for their next attempt; one that is changed is tried again; one that has gone stays as it is', async () => {
    const post = await plan('2026-11-26T10:00:00.000Z')
    await setPostState(post.id, afterFailure('offline', '', 1, NOW))
    expect(await takeDuePost(NOW)).toBeUndefined()
    expect(await takeDuePost(new Date(NOW.getTime() + 60_000))).toMatchObject({
      id: post.id,
      state: { kind: 'failed', attempts: 1 },
    })
    expect(await changePost(post.id, { title: 'Other' })).toBe(false)
    await setPostState(post.id, afterFailure('refused', 'a rule', 2, NOW))
    expect(await changePost(post.id, { title: 'Other' })).toBe(true)
    expect((await allPosts())[0]).toMatchObject({ title: 'Other', state: { kind: 'planned' } })
    await setPostState(post.id, { kind: 'posted', at: NOW.toISOString(), remoteId: 'x' })
    expect(await changePost(post.id, { title: 'Too late' })).toBe(false)
    expect((await allPosts())[0]?.title).toBe('Other')
  })

  it('come back as they were when taking them out is undone', async () => {
    const post = await plan('2026-11-26T13:00:00.000Z')
    await deletePost(post.id)
    expect(await allPosts()).toEqual([])
    await restorePost(post)
    expect(await allPosts()).toEqual([post])
  })
})

describe('how the Outbox works', () => {
  it('is kept field by field, and begins anew where what is kept cannot be read', async () => {
    expect(await readOutboxSettings()).toEqual({
      held: false,
      namePattern: USUAL_PATTERN,
      notify: false,
      backEnd: 'measured',
      measured: null,
    })
    await changeOutboxSettings({ held: true })
    await changeOutboxSettings({ namePattern: '{date} {highlight}' })
    expect(await readOutboxSettings()).toEqual({
      held: true,
      namePattern: '{date} {highlight}',
      notify: false,
      backEnd: 'measured',
      measured: null,
    })
    await database().settings.put({ key: 'outbox', value: { held: 'perhaps' } })
    expect((await readOutboxSettings()).held).toBe(false)
  })

  it('presets are kept by name, a second of the same name in the first one’s place', async () => {
    await keepRenderPreset('Chat loop', { ...USUAL_OUTPUT, loop: true })
    await keepRenderPreset('Archive', { ...USUAL_OUTPUT, quality: 'high' })
    await keepRenderPreset('Chat loop', { ...USUAL_OUTPUT, loop: true, size: '720' })
    const presets = await allRenderPresets()
    expect(presets.map((p) => [p.name, p.output.size])).toEqual([
      ['Archive', 'shape'],
      ['Chat loop', '720'],
    ])
    if (presets[0]) await deleteRenderPreset(presets[0].id)
    expect((await allRenderPresets()).map((p) => p.name)).toEqual(['Chat loop'])
  })
})

describe('edits that come in a file', () => {
  it('become highlights of their own, with recordings and bytes that are not here yet; what is here stays', async () => {
    const edit = sampleEdit()
    const bytes = new Map([['r', new Blob(['film'])]])
    const first = await bringInEdits({ edits: [edit], bytes, filed: null })
    const [made] = first
    if (!made) throw new Error('nothing came')
    expect(made.id).not.toBe(edit.highlight.id)
    const loaded = await loadEdit(made.id)
    expect(loaded.ok && loaded.edit.recordings.map((r) => [r.id, r.source])).toEqual([['r', 'kept']])
    const id = edit.recordings[0]?.id
    if (!id) throw new Error('no recording')
    const stored = await storedFile(id)
    expect(stored.ok && (await stored.file.text())).toBe('film')

    await database().recordings.update(id, { name: 'Named here' })
    const again = await bringInEdits({
      edits: [edit],
      bytes: new Map([['r', new Blob(['another film'])]]),
      filed: null,
    })
    expect(again[0]?.id).not.toBe(made.id)
    expect((await database().recordings.get(id))?.name).toBe('Named here')
    const still = await storedFile(id)
    expect(still.ok && (await still.file.text())).toBe('film')
    expect(await database().highlights.count()).toBe(2)
  })

  it('come all or not at all when the disk is full', async () => {
    const full = vi.spyOn(database().files, 'put').mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'))
    await expect(
      bringInEdits({ edits: [sampleEdit()], bytes: new Map([['r', new Blob(['film'])]]), filed: null }),
    ).rejects.toThrow()
    full.mockRestore()
    for (const table of [
      database().recordings,
      database().highlights,
      database().setups,
      database().layouts,
      database().files,
    ])
      expect(await table.count()).toBe(0)
  })

  it('bring the bytes of a recording that came without them before', async () => {
    const edit = sampleEdit()
    const [recording] = edit.recordings
    if (!recording) throw new Error('no recording')
    const lone = {
      ...edit,
      recordings: [{ ...recording, id: 'lone' as typeof recording.id }],
      highlight: {
        ...edit.highlight,
        passages: edit.highlight.passages.map((p) => ({ ...p, recordingId: 'lone' as typeof recording.id })),
      },
    }
    await bringInEdits({ edits: [lone], bytes: new Map(), filed: null })
    expect(await storedFile('lone' as typeof recording.id)).toEqual({ ok: false, reason: 'gone' })
    await bringInEdits({ edits: [lone], bytes: new Map([['lone', new Blob(['film'])]]), filed: null })
    const stored = await storedFile('lone' as typeof recording.id)
    expect(stored.ok && (await stored.file.text())).toBe('film')
  })
})
