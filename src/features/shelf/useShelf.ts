import { useLiveQuery } from 'dexie-react-hooks'
import type { Highlight } from '@/core/model/highlight'
import { readRecord, type RecordKind, type RecordOf } from '@/core/model/migrate'
import type { Recording } from '@/core/model/recording'
import { database } from '@/store/database'
import { openQuestions, type OpenQuestion } from '@/store/resemblances'
import { dayKey } from '@/ui/format'

export interface ShelfHighlight {
  highlight: Highlight
  /** How many finished files it has. */
  files: number
}

export interface ShelfRow {
  recording: Recording
  highlights: ShelfHighlight[]
  setupName: string | null
  /** A kept setup that it may have, as long as nobody has said. */
  question: OpenQuestion | null
}

export interface ShelfDay {
  key: string
  iso: string
  rows: ShelfRow[]
}

export interface Shelf {
  days: ShelfDay[]
  recordings: number
  totalMicros: number
  highlights: number
  files: number
}

/** The Shelf's contents, newest first by day, kept up to date; undefined while they are first read. */
export function useShelf(): Shelf | undefined {
  return useLiveQuery(readShelf, [])
}

async function readShelf(): Promise<Shelf> {
  const db = database()
  const [allRecordings, allHighlights, setups, questions, finished] = await Promise.all([
    db.recordings.orderBy('recordedAt').reverse().toArray(),
    db.highlights.orderBy('createdAt').toArray(),
    db.setups.toArray(),
    openQuestions(),
    db.renders
      .where('state.kind')
      .equals('finished')
      .filter((r) => !r.deletedAt)
      .toArray(),
  ])
  const recordings = readable('recording', allRecordings)
  const highlights = readable('highlight', allHighlights)
  const filesOf = new Map<string, number>()
  for (const r of finished) filesOf.set(r.highlightId, (filesOf.get(r.highlightId) ?? 0) + 1)
  const setupNames = new Map(setups.map((s) => [s.id, s.name]))
  const days = new Map<string, ShelfDay>()
  const onShelf = recordings.filter((r) => !r.deletedAt)
  for (const recording of onShelf) {
    const own = highlights.filter((h) => !h.deletedAt && h.passages.some((p) => p.recordingId === recording.id))
    const setupId = own.at(-1)?.passages[0]?.setupId
    const row: ShelfRow = {
      recording,
      highlights: own.map((highlight) => ({ highlight, files: filesOf.get(highlight.id) ?? 0 })),
      setupName: (setupId && setupNames.get(setupId)) ?? null,
      question: questions.find((q) => q.recording.id === recording.id) ?? null,
    }
    const key = dayKey(recording.recordedAt)
    const day = days.get(key) ?? { key, iso: recording.recordedAt, rows: [] }
    day.rows.push(row)
    days.set(key, day)
  }
  return {
    days: [...days.values()],
    recordings: onShelf.length,
    totalMicros: onShelf.reduce((sum, r) => sum + r.durationMicros, 0),
    highlights: highlights.filter((h) => !h.deletedAt).length,
    files: finished.length,
  }
}

/**
 * Records brought up to date; those of a newer version, or damaged, are left out here and say why when they are
 * opened.
 */
function readable<K extends RecordKind>(kind: K, raw: readonly unknown[]): RecordOf<K>[] {
  return raw.flatMap((r) => {
    const read = readRecord(kind, r)
    return read.ok ? [read.record] : []
  })
}
