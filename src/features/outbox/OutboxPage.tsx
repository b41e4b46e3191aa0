'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useLiveQuery } from 'dexie-react-hooks'
import Link from 'next/link'
import { useEffect, useState } from 'react'
import type { Render } from '@/core/model/render'
import { openRenderFile } from '@/media/render/partFile'
import { allRenders } from '@/store/renders'
import { TopBar } from '@/ui/TopBar'
import { useBlobUrl } from '@/ui/useBlobUrl'
import { palette } from '@/ui/theme'
import { RenderRow } from './RenderRow'
import { privateName } from './renderQueue'

/** Renders running and waiting, and the finished files with a player beside them. */
export function OutboxPage() {
  const renders = useLiveQuery(allRenders, [])
  const [playing, setPlaying] = useState<Render | null>(null)
  const shown = renders?.find((r) => r.id === playing?.id) ?? null
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: '100dvh' }}>
      <TopBar />
      <Box component="main" sx={{ flex: 1, display: 'flex', minHeight: 0 }}>
        <Box sx={{ flex: 1, overflowY: 'auto', minWidth: 0 }}>
          {renders?.length === 0 && <NothingYet />}
          {renders?.map((render) => (
            <RenderRow key={render.id} render={render} playing={shown?.id === render.id} onPlay={() => setPlaying(render)} />
          ))}
        </Box>
        {shown && <FilePlayer render={shown} onClose={() => setPlaying(null)} />}
      </Box>
    </Box>
  )
}

function NothingYet() {
  return (
    <Box sx={{ p: 10 }}>
      <Typography component="h1" variant="h1">
        No files yet
      </Typography>
      <Typography sx={{ mt: 2, mb: 4, color: palette.inkSoft, maxWidth: 520 }}>Finished files and renders at work are listed here. Open a highlight from the Shelf and press Render.</Typography>
      <Button component={Link} href="/">
        Go to the Shelf
      </Button>
    </Box>
  )
}

function FilePlayer({ render, onClose }: { render: Render; onClose: () => void }) {
  const [file, setFile] = useState<File | null>(null)
  const [missing, setMissing] = useState(false)
  useEffect(() => {
    let live = true
    setFile(null)
    void openRenderFile(privateName(render)).then((found) => {
      if (!live) return
      setFile(found)
      setMissing(!found)
    })
    return () => {
      live = false
    }
  }, [render])
  const url = useBlobUrl(file)
  return (
    <Box component="aside" aria-label="Player" sx={{ width: 'min(38vw, 460px)', flex: 'none', bgcolor: palette.mat, display: 'flex', flexDirection: 'column', p: 3, gap: 2, minHeight: 0 }}>
      <Box sx={{ display: 'flex', justifyContent: 'flex-end' }}>
        <Button onClick={onClose}>Close player</Button>
      </Box>
      {missing && <Typography sx={{ color: '#fff' }}>The file is no longer in the browser’s storage. Render it again.</Typography>}
      {url && <Box component="video" src={url} controls autoPlay aria-label={render.edit.highlight.name} sx={{ flex: 1, minHeight: 0, maxWidth: '100%', objectFit: 'contain' }} />}
    </Box>
  )
}
