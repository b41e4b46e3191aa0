import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { RecordingId } from '@/core/model/ids'
import { database } from './database'
import {
  changePreviewSettings,
  keepPreviewCopy,
  previewCopiesOf,
  previewCopyBytes,
  readPreviewSettings,
  removePreviewCopies,
} from './previewCopies'
import { keepFile } from './recordings'

const piece = (index: number, id = 'r') => ({ recordingId: id as RecordingId, index })
const file = (bytes: number) => new Blob([new Uint8Array(bytes)])
const kept = async () => (await database().previewCopies.toArray()).map((c) => c.index).sort((a, b) => a - b)

let now = 1000

beforeEach(async () => {
  await Promise.all(database().tables.map((table) => table.clear()))
  vi.spyOn(Date, 'now').mockImplementation(() => now++)
})

describe('preview copies', () => {
  it('are given for the pieces that are asked for, as far as there are any', async () => {
    await keepPreviewCopy(piece(1), file(10), [])
    await keepPreviewCopy(piece(2), file(20), [])
    await keepPreviewCopy(piece(1, 'other'), file(30), [])
    expect((await previewCopiesOf([piece(0), piece(1), piece(2)])).map((c) => [c.index, c.file.size])).toEqual([
      [1, 10],
      [2, 20],
    ])
    expect(await previewCopyBytes()).toBe(60)
    await removePreviewCopies()
    expect(await previewCopyBytes()).toBe(0)
  })

  it('take no more room than they may: those used longest ago go, never those that are needed', async () => {
    await changePreviewSettings({ maxBytes: 100 })
    for (const index of [0, 1, 2]) await keepPreviewCopy(piece(index), file(30), [])
    await previewCopiesOf([piece(0)])
    await keepPreviewCopy(piece(3), file(30), [])
    expect(await kept()).toEqual([0, 2, 3])
    await keepPreviewCopy(piece(4), file(30), [piece(2), piece(3), piece(4)])
    expect(await kept()).toEqual([2, 3, 4])
    await changePreviewSettings({ maxBytes: 40 })
    expect(await kept()).toEqual([4])
    await changePreviewSettings({ maxBytes: 0 })
    expect(await kept()).toEqual([])
    expect(await readPreviewSettings()).toEqual({ maxBytes: 0 })
  })

  it('go where there is no room for what cannot be made again', async () => {
    await keepPreviewCopy(piece(0), file(10), [])
    vi.spyOn(database().files, 'put').mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'))
    expect(await keepFile({ owner: 'r' as RecordingId, kind: 'kept', blob: file(5) })).toEqual({ ok: true })
    expect(await kept()).toEqual([])
    vi.spyOn(database().files, 'put').mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'))
    expect(await keepFile({ owner: 'r' as RecordingId, kind: 'kept', blob: file(5) })).toEqual({
      ok: false,
      reason: 'no-room',
    })
  })

  it('of a recording whose file was chosen again are made again', async () => {
    for (const id of ['r', 'other']) await keepPreviewCopy(piece(3, id), file(10), [])
    await keepFile({ owner: 'r' as RecordingId, kind: 'kept', blob: file(5) })
    expect((await database().previewCopies.toArray()).map((c) => c.recordingId)).toEqual(['other'])
  })

  it('that cannot be kept are no misfortune', async () => {
    vi.spyOn(database().previewCopies, 'put').mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'))
    expect(await keepPreviewCopy(piece(0), file(10), [])).toBe(false)
  })
})
