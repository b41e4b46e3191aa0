'use client'

import Box from '@mui/material/Box'
import LinearProgress from '@mui/material/LinearProgress'
import { useLiveQuery } from 'dexie-react-hooks'
import Link from 'next/link'
import { useStore } from 'zustand'
import type { HighlightId } from '@/core/model/ids'
import { rendersOf } from '@/store/renders'
import { palette, textSize } from '@/ui/theme'
import { renderProgress } from '@/shared/rendering/progress'
import { wording } from './wording'

/** This highlight's renders in a line, leading to the Outbox. */
export function RenderStatus({ highlightId }: { highlightId: HighlightId }) {
  const renders = useLiveQuery(() => rendersOf(highlightId), [highlightId])
  const progress = useStore(renderProgress)
  if (!renders || renders.length === 0) return null
  const running = renders.filter((r) => ['running', 'waiting', 'away'].includes(r.state.kind))
  const failed = renders.filter((r) => r.state.kind === 'failed').length
  const finished = renders.filter((r) => ['finished', 'made-away'].includes(r.state.kind)).length
  const current = running.map((r) => progress[r.id]).find((p) => p)
  const words = statusWords(running.length, failed, finished, current?.secondsLeft)
  return (
    <Box
      component={Link}
      href="/outbox"
      sx={{
        fontSize: textSize.note,
        color: failed > 0 && running.length === 0 ? palette.haw : palette.leaf,
        whiteSpace: 'nowrap',
        textDecoration: 'none',
        minWidth: 96,
        '&:hover': { textDecoration: 'underline' },
      }}
    >
      {words}
      {current && (
        <LinearProgress
          variant="determinate"
          value={(current.frame / current.frames) * 100}
          sx={{ height: 3, mt: '2px' }}
          aria-label={wording.renderProgress}
        />
      )}
    </Box>
  )
}

function statusWords(running: number, failed: number, finished: number, secondsLeft: number | undefined): string {
  if (running > 0) return wording.toGo(running, secondsLeft)
  return failed > 0 ? `${failed} failed` : `${finished} ${finished === 1 ? 'file' : 'files'} ready`
}
