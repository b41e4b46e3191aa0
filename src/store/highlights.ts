import { DEFAULT_LAYOUT_NAME, startingLayout, startingRegions } from '@/core/model/starting'
import type { Edit } from '@/core/model/edit'
import type { Highlight } from '@/core/model/highlight'
import type { CueId, HighlightId, LayoutId, PanelId, PassageId, RecordingId, RegionId, SetupId } from '@/core/model/ids'
import { newLayout, picturesOfLayouts, type Layout } from '@/core/model/layout'
import { readRecord, type RecordKind, type RecordOf } from '@/core/model/migrate'
import { overfull } from '@/core/model/overfull'
import { newPassage, recordingsIn, setupsIn, type Passage } from '@/core/model/passage'
import { USUAL_OUTPUT } from '@/core/model/outputChoice'
import { picturesOfMarks } from '@/core/model/pictureMark'
import { newRecord } from '@/core/model/record'
import type { Recording } from '@/core/model/recording'
import { newRegion, type Region } from '@/core/model/region'
import { newSetup, type Setup } from '@/core/model/setup'
import { STANDARD_SHAPES, type Shape } from '@/core/model/shape'
import { NO_WORDS } from '@/core/model/words'
import type { Micros } from '@/core/time/micros'
import type { Table } from 'dexie'
import { newId } from '@/core/model/ids'
import { nowStamp, stampAfter } from './clock'
import { database } from './database'
import { keptFonts } from './fontFiles'
import { Session } from './session'
import type { UndoStep } from './undo'

/** A first cut is at most this long: the common limit of feeds. */
export const FIRST_CUT_MICROS = 60_000_000

export interface NewHighlight {
  name: string
  inMicros?: Micros
  outMicros?: Micros
  regions?: Pick<Region, 'role' | 'name' | 'bounds' | 'head'>[]
  setupName?: string
  arrangement?: Layout['arrangement']
  layoutName?: string
  shapes?: Shape[]
  origin?: Highlight['origin']
  draft?: Highlight['draft']
}

/**
 * A new highlight of a recording, not kept yet. Where nothing else is asked for, regions and layout are copies of
 * those the recording's newest highlight uses, since a person's scene rarely changes; else starting ones.
 */
export async function newHighlight(
  recording: Recording,
  wanted: NewHighlight,
  id: HighlightId = newId<HighlightId>(),
): Promise<{ highlight: Highlight; setup: Setup; layout: Layout }> {
  const base = newRecord(nowStamp())
  const previous = await newestEditOf(recording.id)
  const regions =
    wanted.regions?.map((r) => ({
      ...newRegion(newId<RegionId>(), r.role, r.name, r.bounds),
      ...(r.head && { head: r.head }),
    })) ??
    previous?.setups[0]?.regions ??
    startingRegions(() => newId<RegionId>())
  const setup = newSetup({
    ...base,
    id: newId<SetupId>(),
    name: wanted.setupName ?? previous?.setups[0]?.name ?? recording.name,
    regions,
    ownedBy: id,
    basedOn: wanted.regions ? null : (previous?.setups[0]?.basedOn ?? null),
    isGuess: !wanted.regions && (previous?.setups[0]?.isGuess ?? true),
    rejected: previous?.setups[0]?.rejected ?? [],
  })
  const [known] = previous?.layouts ?? []
  const arrangement = wanted.arrangement ?? known?.arrangement ?? startingLayout(() => newId<PanelId>())
  const layout = newLayout({
    ...base,
    id: newId<LayoutId>(),
    name: wanted.layoutName ?? known?.name ?? DEFAULT_LAYOUT_NAME,
    arrangement,
    adapts: wanted.arrangement || !known ? true : known.adapts === true,
    ownedBy: id,
  })
  const inMicros = wanted.inMicros ?? recording.video.firstFrameMicros
  const outMicros = wanted.outMicros ?? Math.min(recording.durationMicros, inMicros + FIRST_CUT_MICROS)
  const highlight: Highlight = {
    ...base,
    id,
    name: wanted.name,
    shapes: wanted.shapes ?? previous?.highlight.shapes ?? STANDARD_SHAPES.slice(0, 1),
    passages: [
      newPassage({
        id: newId<PassageId>(),
        recordingId: recording.id,
        inMicros,
        outMicros,
        setupId: setup.id,
        layoutId: layout.id,
      }),
    ],
    joinTiming: 'hold',
    beds: [],
    origin: wanted.origin ?? null,
    words: wordsLike(previous, recording.id),
    marks: [],
    output: previous?.highlight.output ?? USUAL_OUTPUT,
    limitDb: null,
    accepted: [],
    brandId: previous?.highlight.brandId ?? null,
    ...(wanted.draft && { draft: wanted.draft }),
  }
  return { highlight, setup, layout }
}

/** Cuts a new highlight from a recording and keeps it; see {@link newHighlight}. */
export async function createHighlight(
  recording: Recording,
  wanted: NewHighlight,
  id?: HighlightId,
): Promise<Highlight> {
  const { highlight, setup, layout } = await newHighlight(recording, wanted, id)
  const db = database()
  await db.transaction('rw', db.highlights, db.setups, db.layouts, async () => {
    await db.setups.put(setup)
    await db.layouts.put(layout)
    await db.highlights.put(highlight)
  })
  return highlight
}

/**
 * What is said in a recording is known from the highlight cut before, and captions look as they did there. Titles are
 * each highlight's own.
 */
function wordsLike(previous: Edit | null, recordingId: RecordingId): Highlight['words'] {
  if (!previous) return NO_WORDS
  const { cues, speakers, captions } = previous.highlight.words
  return {
    cues: cues.filter((c) => c.recordingId === recordingId).map((c) => ({ ...c, id: newId<CueId>() })),
    speakers,
    captions,
    titles: [],
  }
}

/**
 * A passage of all of a recording (at most a first cut's length) for an edit, with the records of its own that the
 * edit lacks.
 */
export async function passagePartsFor(
  edit: Edit,
  recording: Recording,
): Promise<{ passage: Passage; setup: Setup | null; layout: Layout | null }> {
  const inMicros = recording.video.firstFrameMicros
  const where = {
    recordingId: recording.id,
    inMicros,
    outMicros: Math.min(recording.durationMicros, inMicros + FIRST_CUT_MICROS),
  }
  const same = edit.highlight.passages.findLast((p) => p.recordingId === recording.id)
  if (same)
    return {
      passage: newPassage({ ...where, id: newId<PassageId>(), setupId: same.setupId, layoutId: same.layoutId }),
      setup: null,
      layout: null,
    }
  const base = { ...newRecord(nowStamp()), ownedBy: edit.highlight.id }
  const previous = await newestEditOf(recording.id)
  const [scene] = previous?.setups ?? []
  const setup = newSetup({
    ...base,
    id: newId<SetupId>(),
    name: scene?.name ?? recording.name,
    basedOn: scene?.basedOn ?? null,
    regions: (scene?.regions ?? startingRegions(() => newId<RegionId>())).map((r) => ({ ...r, id: newId<RegionId>() })),
  })
  const [known] = previous?.layouts ?? []
  const layout: Layout | null = known ? { ...known, ...base, id: newId<LayoutId>() } : null
  const layoutId = layout?.id ?? edit.highlight.passages[0]?.layoutId
  if (!layoutId) throw new RangeError('highlight.passages: empty')
  return { passage: newPassage({ ...where, id: newId<PassageId>(), setupId: setup.id, layoutId }), setup, layout }
}

async function newestEditOf(recordingId: RecordingId): Promise<Edit | null> {
  const all = await database().highlights.orderBy('createdAt').reverse().toArray()
  const highlight = all.find((h) => !h.deletedAt && h.passages.some((p) => recordingsIn(p).includes(recordingId)))
  const loaded = highlight && (await loadEdit(highlight.id))
  return loaded?.ok ? loaded.edit : null
}

export type LoadResult =
  | { ok: true; edit: Edit; steps: UndoStep[]; position: number }
  | { ok: false; reason: 'not-found' | 'newer-version' | 'not-a-record' }

/** A highlight with every record it refers to, brought up to date, and its undo history. */
export async function loadEdit(id: HighlightId): Promise<LoadResult> {
  const db = database()
  const raw = await db.highlights.get(id)
  if (!raw) return { ok: false, reason: 'not-found' }
  const highlight = readRecord('highlight', raw)
  if (!highlight.ok) return highlight
  const { passages, beds } = highlight.record
  const undo = await db.undo.get(id)
  const setups = read('setup', await ownedFirst(db.setups, id, passages.flatMap(setupsIn), undo?.setupIds ?? []))
  const layouts = read(
    'layout',
    await ownedFirst(
      db.layouts,
      id,
      passages.map((p) => p.layoutId),
      undo?.layoutIds ?? [],
    ),
  )
  const recordings = read(
    'recording',
    await db.recordings.bulkGet([...new Set([...(undo?.recordingIds ?? []), ...passages.flatMap(recordingsIn)])]),
  )
  const soundFiles = read(
    'soundFile',
    await db.soundFiles.bulkGet([...new Set([...(undo?.soundFileIds ?? []), ...beds.map((b) => b.soundFileId)])]),
  )
  const imageFiles = read(
    'imageFile',
    await db.imageFiles.bulkGet([
      ...new Set([
        ...(undo?.imageFileIds ?? []),
        ...picturesOfLayouts(layouts ?? []),
        ...picturesOfMarks(highlight.record.marks),
      ]),
    ]),
  )
  if (!setups || !layouts || !recordings || !soundFiles || !imageFiles) return { ok: false, reason: 'not-a-record' }
  return {
    ok: true,
    edit: {
      highlight: highlight.record,
      setups,
      layouts,
      recordings,
      soundFiles,
      imageFiles,
      fontFiles: await keptFonts(),
    },
    steps: undo?.steps ?? [],
    position: undo?.position ?? 0,
  }
}

/**
 * A highlight's own records, whether used at present or not, then others by id. `order`: the ids as they stood when
 * they were written, which undo steps count on; those that it does not know come after, in the order they were made.
 */
async function ownedFirst<T extends { id: string; createdAt: string }, I extends string>(
  table: Table<T, I>,
  owner: HighlightId,
  ids: readonly I[],
  order: readonly string[],
): Promise<(T | undefined)[]> {
  const owned = await table.where('ownedBy').equals(owner).toArray()
  const place = new Map(order.map((id, n) => [id, n]))
  const placeOf = ({ id }: T) => place.get(id) ?? order.length
  owned.sort((a, b) => placeOf(a) - placeOf(b) || a.createdAt.localeCompare(b.createdAt) || a.id.localeCompare(b.id))
  const others = [...new Set(ids)].filter((wanted) => !owned.some((o) => o.id === wanted))
  return [...owned, ...(await table.bulkGet(others))]
}

function read<K extends RecordKind>(kind: K, raw: readonly unknown[]): RecordOf<K>[] | null {
  const results = raw.map((r) => readRecord(kind, r))
  const records = results.flatMap((r) => (r.ok ? [r.record] : []))
  return records.length === results.length ? records : null
}

export type EditSession = Session<Edit>

/** An edit to work on: saved as it is changed, with its history. */
export function editSession({ edit, steps, position }: Extract<LoadResult, { ok: true }>): EditSession {
  let known = edit.highlight.updatedAt
  return new Session(
    edit,
    steps,
    position,
    async (value, newSteps, newPosition) => {
      const written = await saveEdit(value, newSteps, newPosition, known)
      if (written === null) return 'conflict'
      known = written
      return 'written'
    },
    overfull,
  )
}

/** A new highlight of a recording to work on that is not kept before {@link keepNewEdit} keeps it. */
export async function newEditSession(
  recording: Recording,
  wanted: NewHighlight,
  id: HighlightId,
): Promise<EditSession> {
  const { highlight, setup, layout } = await newHighlight(recording, wanted, id)
  const edit: Edit = {
    highlight,
    setups: [setup],
    layouts: [layout],
    recordings: [recording],
    soundFiles: [],
    imageFiles: [],
    fontFiles: await keptFonts(),
  }
  return new Session(edit, [], 0, () => Promise.resolve('written'), overfull)
}

/** Keeps a new highlight with its history. Rejects when the disk is full. */
export async function keepNewEdit(session: EditSession): Promise<void> {
  const { value, steps, position } = session.store.getState().history
  await saveEdit(value, steps, position, value.highlight.updatedAt)
}

/** Whether a highlight is there, on the Shelf or in the bin. */
export async function isKept(id: HighlightId): Promise<boolean> {
  return (await database().highlights.get(id)) !== undefined
}

/**
 * Writes an edit and its history in one transaction, and gives the highlight's new `updatedAt`; null, with nothing
 * written, when what is stored is not what was `known`: another tab has written it. Recordings are not touched: the
 * Bench does not change them.
 */
async function saveEdit(
  edit: Edit,
  steps: readonly UndoStep[],
  position: number,
  known: string,
): Promise<string | null> {
  const db = database()
  const updatedAt = stampAfter(known)
  return db.transaction(
    'rw',
    [db.highlights, db.setups, db.layouts, db.undo, db.recordings, db.soundFiles, db.imageFiles, db.fontFiles],
    async () => {
      const there = await db.highlights.get(edit.highlight.id)
      if (there && there.updatedAt !== known) return null
      // The browser's storage was cleared under the open tab: what the edit refers to has gone with it.
      if (!there) await keepRecordsOf(edit)
      await db.highlights.put({ ...edit.highlight, updatedAt })
      await db.setups.bulkPut(edit.setups.map((s) => ({ ...s, updatedAt })))
      await db.layouts.bulkPut(edit.layouts.map((l) => ({ ...l, updatedAt })))
      await db.undo.put({
        owner: edit.highlight.id,
        steps: [...steps],
        position,
        setupIds: edit.setups.map((s) => s.id),
        layoutIds: edit.layouts.map((l) => l.id),
        recordingIds: edit.recordings.map((r) => r.id),
        soundFileIds: edit.soundFiles.map((f) => f.id),
        imageFileIds: edit.imageFiles.map((f) => f.id),
      })
      return updatedAt
    },
  )
}

/** Puts the records that an edit refers to back where they are not there. */
async function keepRecordsOf({ recordings, soundFiles, imageFiles, fontFiles }: Edit): Promise<void> {
  const db = database()
  for (const r of recordings) if (!(await db.recordings.get(r.id))) await db.recordings.put(r)
  for (const r of soundFiles) if (!(await db.soundFiles.get(r.id))) await db.soundFiles.put(r)
  for (const r of imageFiles) if (!(await db.imageFiles.get(r.id))) await db.imageFiles.put(r)
  for (const r of fontFiles) if (!(await db.fontFiles.get(r.id))) await db.fontFiles.put(r)
}

/** Keeps an edit as a highlight of its own, with copies of its setups and layouts; what it came from stays as it is. */
export async function copyHighlight(edit: Edit, name: string): Promise<Highlight> {
  const base = newRecord(nowStamp())
  const id = newId<HighlightId>()
  const setupIds = new Map(edit.setups.map((s) => [s.id, newId<SetupId>()]))
  const layoutIds = new Map(edit.layouts.map((l) => [l.id, newId<LayoutId>()]))
  const passages = edit.highlight.passages.map((p) => ({
    ...p,
    setupId: setupIds.get(p.setupId) ?? p.setupId,
    layoutId: layoutIds.get(p.layoutId) ?? p.layoutId,
    feeds: p.feeds.map(({ panelId, plays }) => ({
      panelId,
      plays: plays.kind === 'recording' ? { ...plays, setupId: setupIds.get(plays.setupId) ?? plays.setupId } : plays,
    })),
  }))
  const highlight: Highlight = { ...edit.highlight, ...base, id, name, passages }
  const db = database()
  await db.transaction('rw', db.highlights, db.setups, db.layouts, async () => {
    await db.setups.bulkPut(edit.setups.map((s) => ({ ...s, ...base, id: setupIds.get(s.id) ?? s.id, ownedBy: id })))
    await db.layouts.bulkPut(edit.layouts.map((l) => ({ ...l, ...base, id: layoutIds.get(l.id) ?? l.id, ownedBy: id })))
    await db.highlights.put(highlight)
  })
  return highlight
}

/** Every highlight that is not in the bin, newest first. */
export async function highlightsOnShelf(): Promise<Highlight[]> {
  const all = await database().highlights.orderBy('createdAt').reverse().toArray()
  return all.flatMap((raw) => {
    const read = readRecord('highlight', raw)
    return read.ok && !read.record.deletedAt ? [read.record] : []
  })
}

/** The highlights that were cut for moments of a recording. */
export async function highlightsCutFrom(id: RecordingId): Promise<Highlight[]> {
  return database()
    .highlights.filter((h) => h.origin?.recordingId === id && !h.deletedAt)
    .toArray()
}

/** Puts a highlight into the bin, or takes it out again. Its renders stay. */
export async function binHighlight(id: HighlightId, deleted: boolean): Promise<void> {
  await database().highlights.update(id, { deletedAt: deleted ? nowStamp() : null })
}
