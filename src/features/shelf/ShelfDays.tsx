'use client'

import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { useRouter } from 'next/navigation'
import { useMemo } from 'react'
import { binHighlight, createHighlight } from '@/store/highlights'
import { binRecording } from '@/store/recordings'
import { formatDay } from '@/ui/format'
import { useGrowing } from '@/ui/useGrowing'
import { useOffer } from '@/ui/useOffer'
import { RecordingRow, type RowActions } from './RecordingRow'
import type { ShelfDay } from './useShelf'
import { textSize } from '@/ui/theme'
import { wording } from './wording'

/** Recordings under the days that they were made on. */
export function ShelfDays({ days }: { days: readonly ShelfDay[] }) {
  const most = useGrowing(days.reduce((sum, { rows }) => sum + rows.length, 0))
  const actions = useRowActions()
  return firstRows(days, most).map((day) => (
    <Box component="section" key={day.key} aria-label={formatDay(day.iso)}>
      <Typography component="h2" sx={{ px: 4.5, pt: 3, pb: 0.5, fontSize: textSize.body, fontWeight: 700 }}>
        {formatDay(day.iso)}
      </Typography>
      {day.rows.map((row) => (
        <RecordingRow key={row.recording.id} row={row} actions={actions} />
      ))}
    </Box>
  ))
}

function useRowActions(): RowActions {
  const router = useRouter()
  const offer = useOffer()
  return useMemo(() => {
    const withUndo = (words: string, undo: () => Promise<void>) =>
      offer({ words, button: wording.undo, act: () => void undo() })
    return {
      cut: async ({ recording, highlights }) => {
        const highlight = await createHighlight(recording, {
          name: wording.cutOfName(recording.name, highlights.length),
        })
        router.push(`/highlight/${encodeURIComponent(highlight.id)}`)
      },
      binRecording: async ({ recording }) => {
        await binRecording(recording.id, true)
        withUndo(wording.isInTheBin(recording.name), () => binRecording(recording.id, false))
      },
      binHighlight: async ({ highlight }) => {
        await binHighlight(highlight.id, true)
        withUndo(wording.isInTheBin(highlight.name), () => binHighlight(highlight.id, false))
      },
    }
  }, [router, offer])
}

/** The days that the first so many recordings were made on, with those alone. */
function firstRows(days: readonly ShelfDay[], most: number): ShelfDay[] {
  const first: ShelfDay[] = []
  let left = most
  for (const day of days) {
    if (left <= 0) break
    first.push({ ...day, rows: day.rows.slice(0, left) })
    left -= day.rows.length
  }
  return first
}
