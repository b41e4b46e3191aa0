import { proxy } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import type { Recording } from '@/core/model/recording'
import type { Level } from '@/core/sound/levels'
import type { Micros } from '@/core/time/micros'
import { inspector } from '@/media/inspect/inspector'

/** Bars of level in one row. */
export const LEVELS_PER_ROW = 8

const PICTURE_HEIGHT = 104

/** Rows are asked for this long after scrolling has come to rest. */
const REST_MS = 120

/** Rows kept at one scale: about 200 screens' worth; the oldest are let go. */
const MOST_ROWS = 2000

export interface SheetRow {
  picture: Blob | null
  /** Whether `picture` is the frame at the row's own time, not the key frame before it. */
  exact: boolean
  levels: Level[] | null
}

/** Pictures and levels of the rows from `first` up to `last` (inclusive); they come in as they are made. */
export function useSheetRows(recording: Recording, file: Blob, rowMicros: Micros, first: number, last: number): ReadonlyMap<number, SheetRow> {
  const cache = useRef({ key: '', rows: new Map<number, SheetRow>() })
  const key = `${recording.id} ${rowMicros}`
  if (cache.current.key !== key) cache.current = { key, rows: new Map() }
  const [, rerender] = useState(0)

  useEffect(() => {
    let live = true
    const { rows } = cache.current
    const update = (index: number, part: Partial<SheetRow>) => {
      if (!live) return
      rows.set(index, { picture: null, exact: false, levels: null, ...rows.get(index), ...part })
      for (const oldest of rows.keys()) {
        if (rows.size <= MOST_ROWS) break
        rows.delete(oldest)
      }
      rerender((n) => n + 1)
    }
    const timer = setTimeout(() => {
      const wanted = Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => first + i)
      const source = { file, originMicros: recording.originMicros }
      const noPicture = wanted.filter((i) => !rows.get(i)?.exact)
      if (noPicture.length > 0) {
        const times = noPicture.map((i) => i * rowMicros)
        const pass = (precision: 'key-frame' | 'exact') =>
          inspector().pictures('sheet pictures', source, times, PICTURE_HEIGHT, precision, proxy((n: number, picture: Blob) => update(noPicture[n] ?? -1, { picture, exact: precision === 'exact' })))
        // First what is quick to decode, so that the eye has something; then the very frames.
        pass('key-frame')
          .then(() => (live ? pass('exact') : undefined))
          .catch(() => {})
      }
      const noLevels = wanted.filter((i) => !rows.get(i)?.levels)
      const from = noLevels[0]
      const to = noLevels.at(-1)
      if (from !== undefined && to !== undefined && recording.sound) {
        inspector()
          .levels('sheet levels', source, from * rowMicros, rowMicros / LEVELS_PER_ROW, (to - from + 1) * LEVELS_PER_ROW)
          .then((levels) => {
            for (let i = from; i <= to; i++) update(i, { levels: levels.slice((i - from) * LEVELS_PER_ROW, (i - from + 1) * LEVELS_PER_ROW) })
          })
          .catch(() => {})
      }
    }, REST_MS)
    return () => {
      live = false
      clearTimeout(timer)
    }
  }, [recording, file, rowMicros, first, last])

  return cache.current.rows
}
