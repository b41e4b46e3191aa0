import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { sampleEdit } from '../../tests/support/edits'
import type { Edit } from '@/core/model/edit'
import type { HighlightId, RecordingId, RegionId } from '@/core/model/ids'
import { NOTHING_FILED } from '@/core/interchange/rackFile'
import { newRegion } from '@/core/model/region'
import { renderSettings } from '@/core/model/render'
import type { Setup } from '@/core/model/setup'
import { database } from './database'
import { binHighlight, copyHighlight, createHighlight, editSession, loadEdit, passagePartsFor } from './highlights'
import { binItems, deleteForGood, putBack, usedBytes } from './bin'
import { addRecording, binRecording, keepFile, recordingsOnShelf, storedFile } from './recordings'
import {
  allRenders,
  countWaiting,
  firstWaiting,
  MAX_INTERRUPTIONS,
  orderRenders,
  queueRenders,
  resumeInterrupted,
  setRenderState,
  takenFileNames,
  waitAgain,
} from './renders'
import { analysisOf, keepAnalysisPart, speechOf } from './analyses'
import { Session } from './session'
import { addFiled } from './rackFiles'
import { noteHeads } from '@/edit/records'
import { binSetup, changeSetup, keepHeads, keepSetup, keptSetups, letFollow, setupUses } from './setups'
import { openSpotting } from './spottings'
import { keepVersion, versionsOf } from './versions'

const facts = () => {
  const { id, schemaVersion, createdAt, updatedAt, deletedAt, ...rest } = sampleEdit()
    .recordings[0] as Edit['recordings'][number]
  void [id, schemaVersion, createdAt, updatedAt, deletedAt]
  return rest
}
const add = async (id: string, more: Partial<ReturnType<typeof facts>> = {}) =>
  (await addRecording({ ...facts(), ...more }, new File(['bytes'], 'ridge.mp4'), { kind: 'kept' }, id as RecordingId))
    .recording

beforeEach(async () => {
  await Promise.all(database().tables.map((table) => table.clear()))
})

describe('setups', () => {
  const face = (x: number) => [newRegion('f' as RegionId, 'face', 'Wren', { x, y: 0.5, width: 0.25, height: 0.25 })]
  const keep = (name: string) => keepSetup({ name, regions: face(0.1), tags: [], fingerprint: null })

  /** A highlight whose regions are a copy of a kept setup. */
  const basedOn = async (kept: Setup, name: string) => {
    const highlight = await createHighlight(await add(`for ${name}`), { name })
    const loaded = await loadEdit(highlight.id)
    if (!loaded.ok) throw new Error(loaded.reason)
    const session = editSession(loaded)
    session.change('Apply', 'g', (draft) =>
      draft.setups.forEach((s) => Object.assign(s, { basedOn: kept.id, regions: kept.regions })),
    )
    await session.flush()
    return highlight.id
  }

  it('are listed by name without those in the bin and without working copies', async () => {
    const evening = await keep('Evening')
    await keep('Club call')
    await createHighlight(await add('r'), { name: 'First' })
    expect((await keptSetups()).map((s) => s.name)).toEqual(['Club call', 'Evening'])
    await binSetup(evening.id, true)
    expect((await keptSetups()).map((s) => s.name)).toEqual(['Club call'])
  })

  it('tell where they are used; the highlights chosen follow a change, each in a step of its own that can be undone', async () => {
    const kept = await keep('Evening')
    const [first, second] = [await basedOn(kept, 'First'), await basedOn(kept, 'Second')]
    expect(
      (await setupUses())
        .get(kept.id)
        ?.map((u) => u.name)
        .sort(),
    ).toEqual(['First', 'Second'])
    await changeSetup(kept.id, { regions: face(0.6) })
    const [changed] = await keptSetups()
    expect(await letFollow(changed as Setup, [first])).toBe(1)
    const [a, b] = [await loadEdit(first), await loadEdit(second)]
    if (!a.ok || !b.ok) throw new Error('not loaded')
    expect(a.edit.setups[0]?.regions[0]?.bounds.x).toBe(0.6)
    expect(b.edit.setups[0]?.regions[0]?.bounds.x).toBe(0.1)
    const session = editSession(a)
    session.undo()
    expect(session.value.setups[0]?.regions[0]?.bounds.x).toBe(0.1)
  })

  it('come in from a file beside what is there, even beside one in the bin', async () => {
    const kept = await keep('Evening')
    await binSetup(kept.id, true)
    const merge = await addFiled({ records: { ...NOTHING_FILED.records, setup: [kept, kept] }, bytes: {} })
    expect(merge.same).toEqual(['Evening'])
    expect(merge.add.records.setup).toHaveLength(1)
    expect(merge.add.records.setup[0]?.id).not.toBe(kept.id)
    expect((await keptSetups()).map((s) => s.name)).toEqual(['Evening'])
    expect((await database().setups.get(kept.id))?.deletedAt).not.toBeNull()
  })
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
    const first = await createHighlight(recording, {
      name: 'First',
      setupName: 'Evening',
      regions: [{ role: 'slides', name: 'Slides', bounds: { x: 0, y: 0, width: 0.5, height: 0.5 } }],
    })
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
    expect(await storedFile('r5' as RecordingId)).toMatchObject({ ok: true })
    expect(await storedFile('unknown' as RecordingId)).toEqual({ ok: false, reason: 'gone' })
  })

  it('report a full disk as such', async () => {
    const full = Object.assign(new Error('aborted'), {
      name: 'AbortError',
      inner: new DOMException('full', 'QuotaExceededError'),
    })
    vi.spyOn(database().files, 'put').mockRejectedValueOnce(full)
    expect(await keepFile({ owner: 'r6' as RecordingId, kind: 'kept', blob: new Blob(['x']) })).toEqual({
      ok: false,
      reason: 'no-room',
    })
  })
})

describe('a recording', () => {
  it('comes with its bytes and captions in one go; where there is no room for them it can be used in this tab, and that is said', async () => {
    const whole = await addRecording(
      facts(),
      new File(['film'], 'a.mp4'),
      { kind: 'kept' },
      'whole' as RecordingId,
      new File(['WEBVTT'], 'a.vtt'),
    )
    expect(whole.kept).toEqual({ ok: true })
    expect(await database().files.count()).toBe(1)
    expect((await database().captionTexts.get('whole' as RecordingId))?.fileName).toBe('a.vtt')
    const put = vi.spyOn(database().files, 'put').mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'))
    const held = await addRecording(facts(), new File(['film'], 'b.mp4'), { kind: 'kept' }, 'held' as RecordingId)
    put.mockRestore()
    expect(held.kept).toEqual({ ok: false, reason: 'no-room' })
    expect(await database().recordings.get('held' as RecordingId)).toBeDefined()
    expect((await storedFile('held' as RecordingId)).ok).toBe(true)
  })
})

const rename = (session: Session<Edit>, name: string, gesture: string) =>
  session.change('Rename', gesture, (draft) => void (draft.highlight.name = name))

describe('an edit session', () => {
  it('writes changes and their history without being asked, and reads them back', async () => {
    const highlight = await createHighlight(await add('r7'), { name: 'Before' })
    const loaded = await loadEdit(highlight.id)
    if (!loaded.ok) throw new Error(loaded.reason)
    const session = editSession(loaded)
    rename(session, 'After', 'g')
    await vi.waitFor(() => expect(session.store.getState().saving).toBe('saved'))
    const again = await loadEdit(highlight.id)
    if (!again.ok) throw new Error(again.reason)
    expect(again.edit.highlight.name).toBe('After')
    const reopened = editSession(again)
    reopened.undo()
    expect(reopened.value.highlight.name).toBe('Before')
  })

  it('keeps everything when writing fails, says so, and tries again', async () => {
    vi.useFakeTimers()
    const written: string[] = []
    const save = vi.fn((edit: Edit) => {
      if (save.mock.calls.length < 3) return Promise.reject(new DOMException('full', 'QuotaExceededError'))
      written.push(edit.highlight.name)
      return Promise.resolve('written' as const)
    })
    const session = new Session(sampleEdit(), [], 0, save)
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
    const save = vi.fn(() => Promise.resolve('written' as const))
    const session = new Session(sampleEdit(), [], 0, save)
    for (let i = 0; i < 100; i++) {
      rename(session, `Name ${i}`, 'drag')
      await vi.advanceTimersByTimeAsync(10)
    }
    await vi.advanceTimersByTimeAsync(1000)
    // At its begin, then every quarter of a second.
    expect(save.mock.calls.length).toBeGreaterThanOrEqual(4)
    expect(save.mock.calls.length).toBeLessThanOrEqual(6)
    expect(session.isUnwritten).toBe(false)
    vi.useRealTimers()
  })

  it('writes what is done in one go at once, and the end of a drag when it is told to', async () => {
    const names: string[] = []
    const session = new Session(
      sampleEdit(),
      [],
      0,
      (edit: Edit) => (names.push(edit.highlight.name), Promise.resolve('written' as const)),
    )
    rename(session, 'One', 'a')
    expect(names).toEqual(['One'])
    rename(session, 'Two', 'b')
    await vi.waitFor(() => expect(names).toEqual(['One', 'Two']))
    session.undo()
    await vi.waitFor(() => expect(names).toEqual(['One', 'Two', 'One']))
    rename(session, 'Three', 'drag')
    rename(session, 'Four', 'drag')
    await session.flush()
    expect(names.at(-1)).toBe('Four')
    expect(session.isUnwritten).toBe(false)
  })

  it('is there as a whole when the storage was cleared under it', async () => {
    const highlight = await createHighlight(await add('cleared'), { name: 'Cleared' })
    const loaded = await loadEdit(highlight.id)
    if (!loaded.ok) throw new Error(loaded.reason)
    const session = editSession(loaded)
    await Promise.all(database().tables.map((table) => table.clear()))
    rename(session, 'Still here', 'a')
    await session.flush()
    const again = await loadEdit(highlight.id)
    expect(again.ok && [again.edit.highlight.name, again.edit.recordings.map((r) => r.id)]).toEqual([
      'Still here',
      ['cleared'],
    ])
  })

  it('keeps the order of setups that undo counts on, and what is newer, when the clock is set back', async () => {
    vi.useFakeTimers({ now: new Date('2026-11-29T12:00:00Z'), toFake: ['Date'] })
    const highlight = await createHighlight(await add('clock'), { name: 'Clock' })
    const open = async () => {
      const loaded = await loadEdit(highlight.id)
      if (!loaded.ok) throw new Error(loaded.reason)
      return { session: editSession(loaded), loaded }
    }
    const { session, loaded } = await open()
    const [first] = loaded.edit.setups
    if (!first) throw new Error('no setup')
    vi.setSystemTime(new Date('2026-11-28T12:00:00Z'))
    session.change(
      'Add a setup',
      'a',
      (draft) =>
        void draft.setups.push({
          ...first,
          id: 'second' as typeof first.id,
          name: 'Second',
          createdAt: new Date().toISOString(),
        }),
    )
    session.change('Rename it', 'b', (draft) => void Object.assign(draft.setups[1] ?? {}, { name: 'Renamed' }))
    await session.flush()
    const again = await open()
    expect(again.loaded.edit.highlight.updatedAt > highlight.updatedAt).toBe(true)
    expect(again.loaded.edit.setups.map((s) => s.name)).toEqual([first.name, 'Renamed'])
    again.session.undo()
    expect(again.session.value.setups.map((s) => s.name)).toEqual([first.name, 'Second'])
    await again.session.flush()
    vi.useRealTimers()
  })
})

describe('two tabs on one highlight', () => {
  it('never write over each other: the later one is told, and can keep its work as a copy', async () => {
    const highlight = await createHighlight(await add('r8'), { name: 'Shared' })
    const open = async () => {
      const loaded = await loadEdit(highlight.id)
      if (!loaded.ok) throw new Error(loaded.reason)
      return editSession(loaded)
    }
    const [here, there] = [await open(), await open()]
    here.change('Rename', 'a', (draft) => void (draft.highlight.name = 'Here'))
    await here.flush()
    await new Promise((resolve) => setTimeout(resolve, 2))
    here.change('Rename', 'b', (draft) => void (draft.highlight.name = 'Here again'))
    await here.flush()
    expect(here.store.getState().saving).toBe('saved')
    there.change('Rename', 'c', (draft) => void (draft.highlight.name = 'There'))
    await there.flush()
    expect(there.store.getState().saving).toBe('conflict')
    expect((await database().highlights.get(highlight.id))?.name).toBe('Here again')
    const copy = await copyHighlight(there.value, 'There (copy)')
    const loaded = await loadEdit(copy.id)
    if (!loaded.ok) throw new Error(loaded.reason)
    expect(loaded.edit.highlight.name).toBe('There (copy)')
    expect(loaded.edit.setups[0]?.ownedBy).toBe(copy.id)
  })
})

describe('heads that were seen', () => {
  it('are kept, but make nothing newer: another tab goes on, and so does undo', async () => {
    const highlight = await createHighlight(await add('r-heads'), { name: 'Seen' })
    const open = async () => {
      const loaded = await loadEdit(highlight.id)
      if (!loaded.ok) throw new Error(loaded.reason)
      return editSession(loaded)
    }
    const [here, there] = [await open(), await open()]
    const setup = here.value.setups[0] as Setup
    const face = setup.regions[0]?.id as RegionId
    const head = { x: 0.8, y: 0.75, width: 0.08, height: 0.14 }
    const before = (await database().highlights.get(highlight.id))?.updatedAt
    await keepHeads(setup.id, noteHeads(here, setup.id, new Map([[face, head]])))
    expect(here.isUnwritten).toBe(false)
    expect(here.store.getState().saving).toBe('saved')
    expect((await database().highlights.get(highlight.id))?.updatedAt).toBe(before)
    expect((await open()).value.setups[0]?.regions[0]?.head).toEqual(head)
    rename(there, 'There', 'a')
    await there.flush()
    expect(there.store.getState().saving).toBe('saved')
    rename(here, 'Here', 'b')
    here.undo()
    expect(here.value.highlight.name).toBe('Seen')
    expect(here.value.setups[0]?.regions[0]?.head).toEqual(head)
  })
})

describe('passages of several recordings', () => {
  it('can be undone and redone after a reload, whatever order they came to lie in', async () => {
    const first = await add('r9')
    const second = await add('r10', { name: 'Second' })
    const highlight = await createHighlight(first, { name: 'Both' })
    const load = async () => {
      const loaded = await loadEdit(highlight.id)
      if (!loaded.ok) throw new Error(loaded.reason)
      return editSession(loaded)
    }
    const session = await load()
    await new Promise((resolve) => setTimeout(resolve, 2))
    const { passage, setup, layout } = await passagePartsFor(session.value, second)
    expect(setup?.ownedBy).toBe(highlight.id)
    session.extend((draft) => {
      draft.recordings.push(second)
      if (setup) draft.setups.push(setup)
      if (layout) draft.layouts.push(layout)
    })
    session.change('Add passage', 'add', (draft) => void draft.highlight.passages.unshift(passage))
    session.change(
      'Resize',
      'size',
      (draft) => void Object.assign(draft.setups[1]?.regions[0] ?? {}, { name: 'Moved' }),
    )
    session.undo()
    session.undo()
    expect(session.value.highlight.passages).toHaveLength(1)
    await session.flush()
    const again = await load()
    again.redo()
    again.redo()
    expect(again.value.highlight.passages.map((p) => p.recordingId)).toEqual(['r10', 'r9'])
    expect(again.value.setups.find((s) => s.id === setup?.id)?.regions[0]?.name).toBe('Moved')
    expect(again.value.recordings.map((r) => r.id).sort()).toEqual(['r10', 'r9'])
  })
})

describe('versions', () => {
  it('are kept by name, newest first, and hold the edit as it was', async () => {
    const highlight = await createHighlight(await add('r11'), { name: 'Drafts' })
    const loaded = await loadEdit(highlight.id)
    if (!loaded.ok) throw new Error(loaded.reason)
    await keepVersion(loaded.edit, 'Long')
    await new Promise((resolve) => setTimeout(resolve, 2))
    await keepVersion({ ...loaded.edit, highlight: { ...loaded.edit.highlight, name: 'Changed' } }, 'Short')
    const versions = await versionsOf(highlight.id)
    expect(versions.map((v) => v.name)).toEqual(['Short', 'Long'])
    expect(versions[1]?.edit.highlight.name).toBe('Drafts')
  })
})

describe('renders', () => {
  const settings = renderSettings.parse({
    frameRate: { num: 30, den: 1 },
    videoBitrate: 8_000_000,
    audioBitrate: 160_000,
  })
  const wantedOf = (edit: Edit) => edit.highlight.shapes.map((shape) => ({ shape, settings }))

  it('wait in the order they were asked for, with the edit as it was then', async () => {
    const edit = sampleEdit()
    const [first] = await queueRenders(edit, wantedOf(edit))
    await queueRenders({ ...edit, highlight: { ...edit.highlight, name: 'Later' } }, wantedOf(edit))
    expect((await firstWaiting())[0]?.id).toBe(first?.id)
    if (first) await setRenderState(first.id, { kind: 'failed', failure: { reason: 'interrupted' } })
    expect((await firstWaiting())[0]?.edit.highlight.name).toBe('Later')
    expect((await allRenders()).map((r) => r.state.kind)).toEqual(['waiting', 'failed'])
  })

  it('are read by what was asked for at one time, and a damaged one holds nothing up', async () => {
    const edit = sampleEdit()
    const [damaged] = await queueRenders(edit, wantedOf(edit))
    const together = await queueRenders(edit, [...wantedOf(edit), ...wantedOf(edit)])
    await queueRenders(edit, wantedOf(edit))
    if (damaged) await database().renders.update(damaged.id, { settings: 'gone' as never })
    expect((await firstWaiting()).map((r) => r.id)).toEqual(together.map((r) => r.id))
    expect(await countWaiting()).toBe(4 * edit.highlight.shapes.length)
  })

  it('can be put into another order, which what is asked for later comes after', async () => {
    const edit = sampleEdit()
    const names = ['a', 'b', 'c']
    for (const name of names) await queueRenders({ ...edit, highlight: { ...edit.highlight, name } }, wantedOf(edit))
    const [a, b, c] = await allRenders()
    if (!a || !b || !c) throw new Error('not queued')
    await orderRenders([c.id, a.id, b.id])
    await queueRenders({ ...edit, highlight: { ...edit.highlight, name: 'd' } }, wantedOf(edit))
    expect((await allRenders()).map((r) => r.edit.highlight.name)).toEqual(['c', 'a', 'b', 'd'])
  })

  it('that were cut short wait again in their places, until they have been so too often', async () => {
    const edit = sampleEdit()
    const [render] = await queueRenders(edit, wantedOf(edit))
    await queueRenders({ ...edit, highlight: { ...edit.highlight, name: 'Later' } }, wantedOf(edit))
    if (!render) throw new Error('not queued')
    for (let n = 1; n < MAX_INTERRUPTIONS; n++) {
      await setRenderState(render.id, { kind: 'running' })
      await resumeInterrupted()
      expect((await firstWaiting())[0]?.id).toBe(render.id)
    }
    await setRenderState(render.id, { kind: 'running' })
    await resumeInterrupted()
    expect((await allRenders()).find((r) => r.id === render.id)?.state).toEqual({
      kind: 'failed',
      failure: { reason: 'interrupted' },
    })
    expect(await takenFileNames()).toEqual(new Set())
    await waitAgain(render.id)
    await setRenderState(render.id, { kind: 'running' })
    await resumeInterrupted()
    expect((await firstWaiting())[0]?.id).toBe(render.id)
  })
})

describe('what was found out about a recording', () => {
  it('is kept part by part, read back in whole, and tells where speech is', async () => {
    const recording = await add('r12')
    const speech = new Uint8Array(1875).fill(5)
    speech.fill(250, 100, 200)
    const part = { peaks: new Uint8Array(6000), rms: new Uint8Array(6000), loudness: new Float32Array(600), speech }
    expect(await keepAnalysisPart({ recordingId: recording.id, kind: 'sound', index: 0, part })).toBe(true)
    await keepAnalysisPart({
      recordingId: recording.id,
      kind: 'pictures',
      index: 0,
      part: { pictures: [], motion: [{ micros: 2_000_000, amount: 0.1 }], cuts: [2_000_000] },
    })
    await keepAnalysisPart({ recordingId: recording.id, kind: 'sound', index: 0, part })
    const analysis = await analysisOf(recording)
    expect([analysis.sound.size, analysis.pictures.size]).toEqual([1, 1])
    expect(analysis.pictures.get(0)?.cuts).toEqual([2_000_000])
    const heard = await speechOf([recording, { ...recording, id: 'unheard' as RecordingId }])
    expect([...heard.keys()]).toEqual([recording.id])
    expect(heard.get(recording.id)?.[0]?.fromMicros).toBe(3_200_000)
  })

  it('is no misfortune when it cannot be kept', async () => {
    vi.spyOn(database().analyses, 'put').mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'))
    expect(
      await keepAnalysisPart({
        recordingId: 'r13' as RecordingId,
        kind: 'pictures',
        index: 0,
        part: { pictures: [], motion: [], cuts: [] },
      }),
    ).toBe(false)
  })
})

describe('decisions about moments', () => {
  it('are there again with their undo, and two tabs never write over each other', async () => {
    const { id } = await add('r14')
    const here = await openSpotting(id)
    const there = await openSpotting(id)
    here.change('Change finding', 'a', (draft) => void (draft.proposals = 7))
    await here.flush()
    there.change('Change finding', 'b', (draft) => void (draft.proposals = 9))
    await there.flush()
    const again = await openSpotting(id)
    expect(again.value.proposals).toBe(7)
    again.undo()
    expect(again.value.proposals).toBe(15)
  })
})

describe('the bin', () => {
  it('gives the bytes of a recording back; highlights that are cut from it stay, and ask for its file', async () => {
    const recording = await add('binned')
    const highlight = await createHighlight(recording, { name: 'Stays' })
    await binRecording(recording.id, true)
    expect(await binItems()).toMatchObject([
      { kind: 'recording', id: 'binned', name: recording.name, usedBy: 1, sizeBytes: 5 },
    ])
    expect(await usedBytes()).toBe(5)
    await deleteForGood(await binItems())
    expect([await usedBytes(), await binItems()]).toEqual([0, []])
    expect((await loadEdit(highlight.id)).ok).toBe(true)
    expect(await storedFile(recording.id)).toEqual({ ok: false, reason: 'gone' })
    // Once nothing is cut from it, what it said of itself goes too.
    await binHighlight(highlight.id, true)
    await deleteForGood(await binItems())
    for (const table of [
      database().recordings,
      database().highlights,
      database().setups,
      database().layouts,
      database().files,
    ])
      expect([table.name, await table.count()]).toEqual([table.name, 0])
  })

  it('puts back what was thrown away, as it was', async () => {
    const recording = await add('back')
    const highlight = await createHighlight(recording, { name: 'Back too' })
    await binRecording(recording.id, true)
    await binHighlight(highlight.id, true)
    for (const item of await binItems()) await putBack(item)
    expect(await binItems()).toEqual([])
    expect((await recordingsOnShelf()).map((r) => r.id)).toEqual(['back'])
    const stored = await storedFile(recording.id)
    expect(stored.ok && (await stored.file.text())).toBe('bytes')
  })
})
