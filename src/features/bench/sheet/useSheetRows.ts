import { proxy } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import { recordingOf, type Edit } from '@/core/model/edit'
import type { RecordingId } from '@/core/model/ids'
import type { Level } from '@/core/sound/levels'
import { quietly } from '@/diagnostics/note'
import { inspector } from '@/media/inspect/inspector'
import { useBenchContext } from '../benchContext'
import type { SheetItem } from './sheetLayout'

/** Bars of level in one whole row. */
export const LEVELS_PER_ROW = 8

const PICTURE_HEIGHT = 104

/** Rows are asked for this long after scrolling has come to rest. */
const REST_MS = 120

/** Rows kept: about 200 screens' worth; the oldest are let go. */
const MAX_ROWS = 2000

export interface SheetRow {
  picture: Blob | null
  /** Whether `picture` is the frame at the row's own time, not the key frame before it. */
  exact: boolean
  levels: Level[] | null
}

export type RowItem = Extract<SheetItem, { kind: 'row' }>

/** Names what a row shows, whatever passage shows it. */
export function rowKey({ placed, recordingMicros, lengthMicros }: RowItem): string {
  return `${placed.passage.recordingId} ${recordingMicros} ${lengthMicros}`
}

/**
 * Pictures and levels of the rows in sight, by {@link rowKey}; they come in as they are made and are kept for a
 * while.
 */
export function useSheetRows(
  edit: Pick<Edit, 'highlight' | 'recordings'>,
  inSight: readonly RowItem[],
): ReadonlyMap<string, SheetRow> {
  const { files } = useBenchContext()
  const cache = useRef(new Map<string, SheetRow>())
  const [, rerender] = useState(0)
  const latest = useRef({ edit, inSight })
  latest.current = { edit, inSight }
  const wanted = inSight.map(rowKey).join()

  useEffect(() => {
    let live = true
    const asked: string[] = []
    const channel = (name: string) => {
      asked.push(name)
      return name
    }
    const update = (key: string | undefined, part: Partial<SheetRow>) => {
      if (!live || key === undefined) return
      const rows = cache.current
      rows.set(key, { picture: null, exact: false, levels: null, ...rows.get(key), ...part })
      for (const oldest of rows.keys()) {
        if (rows.size <= MAX_ROWS) break
        rows.delete(oldest)
      }
      rerender((n) => n + 1)
    }
    const timer = setTimeout(() => {
      for (const [id, rows] of byRecording(latest.current.inSight)) {
        const file = files.get(id)
        if (!file) continue
        const recording = recordingOf(latest.current.edit, id)
        const source = { id, file, originMicros: recording.originMicros }
        const noPicture = rows.filter((row) => !cache.current.get(rowKey(row))?.exact)
        const pass = (precision: 'key-frame' | 'exact') =>
          inspector().pictures(
            channel(`sheet pictures ${id}`),
            source,
            noPicture.map((r) => r.recordingMicros),
            PICTURE_HEIGHT,
            precision,
            proxy((n: number, picture: Blob) =>
              update(noPicture[n] && rowKey(noPicture[n]), { picture, exact: precision === 'exact' }),
            ),
          )
        // First what is quick to decode, so that the eye has something; then the very frames.
        if (noPicture.length > 0)
          pass('key-frame')
            .then(() => (live ? pass('exact') : undefined))
            .catch(quietly('rows of the Sheet'))
        const noLevels = rows.filter((row) => !cache.current.get(rowKey(row))?.levels)
        if (recording.sound && noLevels.length > 0)
          inspector()
            .levels(
              channel(`sheet levels ${id}`),
              source,
              noLevels.map((r) => ({
                fromMicros: r.recordingMicros,
                stepMicros: r.lengthMicros / LEVELS_PER_ROW,
                count: LEVELS_PER_ROW,
              })),
            )
            .then((levels) => noLevels.forEach((row, i) => update(rowKey(row), { levels: levels[i] ?? null })))
            .catch(quietly('rows of the Sheet'))
      }
    }, REST_MS)
    return () => {
      live = false
      clearTimeout(timer)
      if (asked.length > 0) void inspector().stop(asked)
    }
  }, [files, wanted])

  return cache.current
}

/** Rows in the order of their recordings, each once. */
function byRecording(rows: readonly RowItem[]): Map<RecordingId, RowItem[]> {
  const unique = new Map(rows.map((row) => [rowKey(row), row]))
  const sorted = [...unique.values()].sort((a, b) => a.recordingMicros - b.recordingMicros)
  return Map.groupBy(sorted, (row) => row.placed.passage.recordingId)
}
