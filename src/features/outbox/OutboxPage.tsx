'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useLiveQuery } from 'dexie-react-hooks'
import Link from 'next/link'
import { useState } from 'react'
import type { RenderId } from '@/core/model/ids'
import { allRenders } from '@/store/renders'
import { palette } from '@/ui/theme'
import { FilePlayer } from './FilePlayer'
import { OutboxFrame } from '@/shared/rendering/OutboxFrame'
import { QueueBar } from './QueueBar'
import { RenderRow } from './RenderRow'
import { WaitingRows } from './WaitingRows'
import { wording } from './wording'

/** Renders running and waiting, and the finished files with a player beside them. */
export function OutboxPage() {
  const renders = useLiveQuery(allRenders, [])
  const [playing, setPlaying] = useState<RenderId | null>(null)
  const shown = renders?.find((r) => r.id === playing) ?? null
  const row = (render: NonNullable<typeof renders>[number]) => (
    <RenderRow key={render.id} render={render} playing={shown?.id === render.id} onPlay={() => setPlaying(render.id)} />
  )
  return (
    <OutboxFrame>
      {renders && renders.length > 0 && <QueueBar renders={renders} />}
      <Box sx={{ flex: 1, display: 'flex', minHeight: 0 }}>
        <Box sx={{ flex: 1, overflowY: 'auto', minWidth: 0 }}>
          {renders?.length === 0 && <NothingYet />}
          {renders?.filter((r) => r.state.kind === 'running' || r.state.kind === 'away').map(row)}
          {renders && <WaitingRows renders={renders.filter((r) => r.state.kind === 'waiting')} />}
          {renders
            ?.filter((r) => r.state.kind === 'failed' || r.state.kind === 'finished' || r.state.kind === 'made-away')
            .map(row)}
        </Box>
        {shown && renders && (
          <FilePlayer key={shown.id} render={shown} all={renders} onClose={() => setPlaying(null)} />
        )}
      </Box>
    </OutboxFrame>
  )
}

function NothingYet() {
  return (
    <Box sx={{ p: 10 }}>
      <Typography component="h1" variant="h1">
        {wording.noFilesYet}
      </Typography>
      <Typography sx={{ mt: 2, mb: 4, color: palette.inkSoft, maxWidth: 520 }}>
        {wording.finishedFilesAndRendersAt}
      </Typography>
      <Button component={Link} href="/">
        {wording.goToTheShelf}
      </Button>
    </Box>
  )
}
