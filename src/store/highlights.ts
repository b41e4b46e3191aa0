import { DEFAULT_LAYOUT_NAME, startingLayout, startingRegions } from '@/core/model/starting'
import type { Edit } from '@/core/model/edit'
import type { Highlight } from '@/core/model/highlight'
import type { HighlightId, LayoutId, PanelId, PassageId, RecordingId, RegionId, SetupId } from '@/core/model/ids'
import type { Layout } from '@/core/model/layout'
import { readRecord, type RecordKind, type RecordOf } from '@/core/model/migrate'
import { newRecord } from '@/core/model/record'
import type { Recording } from '@/core/model/recording'
import type { Region } from '@/core/model/region'
import type { Setup } from '@/core/model/setup'
import { STANDARD_SHAPES, type Shape } from '@/core/model/shape'
import type { Micros } from '@/core/time/micros'
import { newId, nowStamp } from './clock'
import { database } from './database'
import type { UndoStep } from './undo'

/** A first cut is at most this long: the common limit of feeds. */
export const FIRST_CUT_MICROS = 60_000_000

export interface NewHighlight {
  name: string
  inMicros?: Micros
  outMicros?: Micros
  regions?: Omit<Region, 'id'>[]
  setupName?: string
  arrangement?: Layout['arrangement']
  layoutName?: string
  shapes?: Shape[]
}

/**
 * Cuts a new highlight from a recording. Where nothing else is asked for, regions and layout are copies of those the
 * recording's newest highlight uses, since a person's scene rarely changes; else starting ones.
 */
export async function createHighlight(recording: Recording, wanted: NewHighlight, id: HighlightId = newId<HighlightId>()): Promise<Highlight> {
  const base = newRecord(nowStamp())
  const previous = await newestEditOf(recording.id)
  const regions = wanted.regions?.map((r) => ({ ...r, id: newId<RegionId>() })) ?? previous?.setups[0]?.regions ?? startingRegions(() => newId<RegionId>())
  const setup: Setup = { ...base, id: newId<SetupId>(), name: wanted.setupName ?? previous?.setups[0]?.name ?? recording.name, regions, ownedBy: id }
  const arrangement = wanted.arrangement ?? previous?.layouts[0]?.arrangement ?? startingLayout(() => newId<PanelId>())
  const layout: Layout = { ...base, id: newId<LayoutId>(), name: wanted.layoutName ?? previous?.layouts[0]?.name ?? DEFAULT_LAYOUT_NAME, arrangement, perShape: {}, ownedBy: id }
  const inMicros = wanted.inMicros ?? recording.video.firstFrameMicros
  const outMicros = wanted.outMicros ?? Math.min(recording.durationMicros, inMicros + FIRST_CUT_MICROS)
  const highlight: Highlight = {
    ...base,
    id,
    name: wanted.name,
    shapes: wanted.shapes ?? previous?.highlight.shapes ?? STANDARD_SHAPES.slice(0, 1),
    passages: [{ id: newId<PassageId>(), recordingId: recording.id, inMicros, outMicros, speedPercent: 100, setupId: setup.id, layoutId: layout.id, corrections: [] }],
  }
  const db = database()
  await db.transaction('rw', db.highlights, db.setups, db.layouts, async () => {
    await db.setups.put(setup)
    await db.layouts.put(layout)
    await db.highlights.put(highlight)
  })
  return highlight
}

async function newestEditOf(recordingId: RecordingId): Promise<Edit | null> {
  const all = await database().highlights.orderBy('createdAt').reverse().toArray()
  const found = all.find((h) => !h.deletedAt && h.passages.some((p) => p.recordingId === recordingId))
  const loaded = found && (await loadEdit(found.id))
  return loaded?.ok ? loaded.edit : null
}

export type LoadResult = { ok: true; edit: Edit; steps: UndoStep[]; position: number } | { ok: false; reason: 'not-found' | 'newer-version' | 'not-a-record' }

/** A highlight with every record it refers to, brought up to date, and its undo history. */
export async function loadEdit(id: HighlightId): Promise<LoadResult> {
  const db = database()
  const raw = await db.highlights.get(id)
  if (!raw) return { ok: false, reason: 'not-found' }
  const highlight = readRecord('highlight', raw)
  if (!highlight.ok) return highlight
  const { passages } = highlight.record
  const setups = read('setup', await db.setups.bulkGet([...new Set(passages.map((p) => p.setupId))]))
  const layouts = read('layout', await db.layouts.bulkGet([...new Set(passages.map((p) => p.layoutId))]))
  const recordings = read('recording', await db.recordings.bulkGet([...new Set(passages.map((p) => p.recordingId))]))
  if (!setups || !layouts || !recordings) return { ok: false, reason: 'not-a-record' }
  const undo = await db.undo.get(id)
  return { ok: true, edit: { highlight: highlight.record, setups, layouts, recordings }, steps: undo?.steps ?? [], position: undo?.position ?? 0 }
}

function read<K extends RecordKind>(kind: K, raw: readonly unknown[]): RecordOf<K>[] | null {
  const results = raw.map((r) => readRecord(kind, r))
  const records = results.flatMap((r) => (r.ok ? [r.record] : []))
  return records.length === results.length ? records : null
}

/** Writes an edit and its history in one transaction. Recordings are not touched: the Bench does not change them. */
export async function saveEdit(edit: Edit, steps: readonly UndoStep[], position: number): Promise<void> {
  const db = database()
  const updatedAt = nowStamp()
  await db.transaction('rw', db.highlights, db.setups, db.layouts, db.undo, async () => {
    await db.highlights.put({ ...edit.highlight, updatedAt })
    await db.setups.bulkPut(edit.setups.map((s) => ({ ...s, updatedAt })))
    await db.layouts.bulkPut(edit.layouts.map((l) => ({ ...l, updatedAt })))
    await db.undo.put({ highlightId: edit.highlight.id, steps: [...steps], position })
  })
}

/** Puts a highlight into the bin, or takes it out again. Its renders stay. */
export async function binHighlight(id: HighlightId, deleted: boolean): Promise<void> {
  await database().highlights.update(id, { deletedAt: deleted ? nowStamp() : null })
}
