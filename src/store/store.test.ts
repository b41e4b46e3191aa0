import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { sampleEdit } from '../../tests/support/edits'
import type { Edit } from '@/core/model/edit'
import type { HighlightId, RecordingId } from '@/core/model/ids'
import { database } from './database'
import { EditSession } from './editSession'
import { binHighlight, createHighlight, loadEdit } from './highlights'
import { addRecording, keepFile, recordingFile } from './recordings'
import { allRenders, nextWaiting, queueRenders, setRenderState } from './renders'

const facts = () => {
  const { id, schemaVersion, createdAt, updatedAt, deletedAt, ...rest } = sampleEdit().recordings[0] as Edit['recordings'][number]
  void [id, schemaVersion, createdAt, updatedAt, deletedAt]
  return rest
}
const add = (id: string) => addRecording(facts(), new File(['bytes'], 'ridge.mp4'), id as RecordingId)

beforeEach(async () => {
  await Promise.all(database().tables.map((table) => table.clear()))
})

describe('cutting highlights', () => {
  it('begins at most a minute long, with regions and a layout of its own', async () => {
    const recording = await add('r1')
    const highlight = await createHighlight(recording, { name: 'First' })
    const loaded = await loadEdit(highlight.id)
    if (!loaded.ok) throw new Error(loaded.reason)
    expect(loaded.edit.highlight.passages[0]).toMatchObject({ inMicros: 0, outMicros: 60_000_000 })
    expect(loaded.edit.setups[0]?.regions.map((r) => r.role)).toEqual(['face', 'game'])
    expect(loaded.edit.setups[0]?.ownedBy).toBe(highlight.id)
  })

  it('takes over the scene of the recording’s newest highlight, as a copy', async () => {
    const recording = await add('r2')
    const first = await createHighlight(recording, { name: 'First', setupName: 'Evening', regions: [{ role: 'slides', name: 'Slides', bounds: { x: 0, y: 0, width: 0.5, height: 0.5 }, focus: null }] })
    const second = await createHighlight(recording, { name: 'Second' })
    const [a, b] = [await loadEdit(first.id), await loadEdit(second.id)]
    if (!a.ok || !b.ok) throw new Error('not loaded')
    expect(b.edit.setups[0]).toMatchObject({ name: 'Evening', regions: [{ role: 'slides' }] })
    expect(b.edit.setups[0]?.id).not.toBe(a.edit.setups[0]?.id)
  })

  it('says what cannot be opened, and why', async () => {
    expect(await loadEdit('nowhere' as HighlightId)).toEqual({ ok: false, reason: 'not-found' })
    const highlight = await createHighlight(await add('r3'), { name: 'Newer' })
    await database().highlights.update(highlight.id, { schemaVersion: 99 as 1 })
    expect(await loadEdit(highlight.id)).toMatchObject({ ok: false, reason: 'newer-version' })
  })

  it('goes to the bin and comes back', async () => {
    const highlight = await createHighlight(await add('r4'), { name: 'Thrown away' })
    await binHighlight(highlight.id, true)
    expect((await database().highlights.get(highlight.id))?.deletedAt).not.toBeNull()
    await binHighlight(highlight.id, false)
    expect((await database().highlights.get(highlight.id))?.deletedAt).toBeNull()
  })
})

describe('files', () => {
  it('are at hand at once; a recording without one says that it is gone', async () => {
    await add('r5')
    expect(await recordingFile('r5' as RecordingId)).toMatchObject({ ok: true })
    expect(await recordingFile('unknown' as RecordingId)).toEqual({ ok: false, reason: 'gone' })
  })

  it('report a full disk as such', async () => {
    const full = Object.assign(new Error('aborted'), { name: 'AbortError', inner: new DOMException('full', 'QuotaExceededError') })
    vi.spyOn(database().files, 'put').mockRejectedValueOnce(full)
    expect(await keepFile({ recordingId: 'r6' as RecordingId, kind: 'kept', blob: new Blob(['x']) })).toEqual({ ok: false, reason: 'no-room' })
  })
})

describe('an edit session', () => {
  const rename = (session: EditSession, name: string, gesture: string) => session.change('Rename', gesture, (draft) => void (draft.highlight.name = name))

  it('writes changes and their history without being asked, and reads them back', async () => {
    const highlight = await createHighlight(await add('r7'), { name: 'Before' })
    const loaded = await loadEdit(highlight.id)
    if (!loaded.ok) throw new Error(loaded.reason)
    const session = new EditSession(loaded.edit, loaded.steps, loaded.position)
    rename(session, 'After', 'g')
    await vi.waitFor(() => expect(session.store.getState().saving).toBe('saved'))
    const again = await loadEdit(highlight.id)
    if (!again.ok) throw new Error(again.reason)
    expect(again.edit.highlight.name).toBe('After')
    const reopened = new EditSession(again.edit, again.steps, again.position)
    reopened.undo()
    expect(reopened.edit.highlight.name).toBe('Before')
  })

  it('keeps everything when writing fails, says so, and tries again', async () => {
    vi.useFakeTimers()
    const written: string[] = []
    const save = vi.fn((edit: Edit) => {
      if (save.mock.calls.length < 3) return Promise.reject(new DOMException('full', 'QuotaExceededError'))
      written.push(edit.highlight.name)
      return Promise.resolve()
    })
    const session = new EditSession(sampleEdit(), [], 0, save)
    rename(session, 'One', 'a')
    await vi.advanceTimersByTimeAsync(300)
    expect(session.store.getState().saving).toBe('no-room')
    rename(session, 'Two', 'b')
    await vi.advanceTimersByTimeAsync(10_000)
    expect(session.store.getState().saving).toBe('saved')
    expect(written.at(-1)).toBe('Two')
    vi.useRealTimers()
  })

  it('gathers a drag into few writes', async () => {
    vi.useFakeTimers()
    const save = vi.fn(() => Promise.resolve())
    const session = new EditSession(sampleEdit(), [], 0, save)
    for (let i = 0; i < 100; i++) rename(session, `Name ${i}`, 'drag')
    await vi.advanceTimersByTimeAsync(1000)
    expect(save).toHaveBeenCalledTimes(1)
    vi.useRealTimers()
  })
})

describe('renders', () => {
  it('wait in the order they were asked for, with the edit as it was then', async () => {
    const edit = sampleEdit()
    const settings = { frameRate: { num: 30, den: 1 }, videoBitrate: 8_000_000, audioBitrate: 160_000 }
    const [first] = await queueRenders(edit, edit.highlight.shapes, settings)
    await new Promise((resolve) => setTimeout(resolve, 5))
    await queueRenders({ ...edit, highlight: { ...edit.highlight, name: 'Later' } }, edit.highlight.shapes, settings)
    expect((await nextWaiting())?.id).toBe(first?.id)
    if (first) await setRenderState(first.id, { kind: 'failed', failure: { reason: 'interrupted' } })
    expect((await nextWaiting())?.edit.highlight.name).toBe('Later')
    expect((await allRenders()).map((r) => r.state.kind)).toEqual(['waiting', 'failed'])
  })
})
