'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useEffect, useRef, useState } from 'react'
import type { RenderId } from '@/core/model/ids'
import type { Render } from '@/core/model/render'
import { openRenderFile } from '@/media/render/partFile'
import { useBlobUrl } from '@/ui/useBlobUrl'
import { palette, textSize } from '@/ui/theme'
import { wording } from './wording'

const nameOf = (render: Render) =>
  render.state.kind === 'finished' ? render.state.file.fileName : render.edit.highlight.name

/** Plays a finished file; beside it another of the same highlight, which follows it. */
export function FilePlayer({ render, all, onClose }: { render: Render; all: readonly Render[]; onClose: () => void }) {
  const [besideId, setBesideId] = useState<RenderId | ''>('')
  const first = useRef<HTMLVideoElement>(null)
  const second = useRef<HTMLVideoElement>(null)
  const others = all.filter(
    (r) => r.id !== render.id && r.highlightId === render.highlightId && r.state.kind === 'finished',
  )
  const beside = others.find((r) => r.id === besideId) ?? null
  const follow = () => {
    const [a, b] = [first.current, second.current]
    if (!a || !b) return
    if (Math.abs(b.currentTime - a.currentTime) > 0.05) b.currentTime = a.currentTime
    if (a.paused) b.pause()
    else void b.play().catch(() => {})
  }
  return (
    <Box
      component="aside"
      aria-label={wording.player}
      sx={{
        width: beside ? 'min(56vw, 860px)' : 'min(38vw, 460px)',
        flex: 'none',
        bgcolor: palette.mat,
        display: 'flex',
        flexDirection: 'column',
        p: 3,
        gap: 2,
        minHeight: 0,
      }}
    >
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
        {others.length > 0 && (
          <TextField
            select
            size="small"
            value={besideId}
            onChange={(e) => setBesideId(e.target.value as RenderId | '')}
            slotProps={{ select: { displayEmpty: true, 'aria-label': 'Beside' } }}
            sx={{ flex: 1, minWidth: 0, bgcolor: palette.sheet, borderRadius: 1 }}
          >
            <MenuItem value="">{wording.nothingBesideIt}</MenuItem>
            {others.map((other) => (
              <MenuItem key={other.id} value={other.id}>
                {nameOf(other)}
              </MenuItem>
            ))}
          </TextField>
        )}
        <Box sx={{ flex: 1 }} />
        <Button onClick={onClose}>{wording.closePlayer}</Button>
      </Box>
      <Box sx={{ flex: 1, minHeight: 0, display: 'grid', gridTemplateColumns: beside ? '1fr 1fr' : '1fr', gap: 2 }}>
        <Picture render={render} video={first} onTime={follow} />
        {beside && <Picture key={beside.id} render={beside} video={second} follows onTime={() => {}} />}
      </Box>
    </Box>
  )
}

function Picture({
  render,
  video,
  follows = false,
  onTime,
}: {
  render: Render
  video: React.RefObject<HTMLVideoElement | null>
  follows?: boolean
  onTime: () => void
}) {
  const [file, setFile] = useState<File | null>(null)
  const [missing, setMissing] = useState(false)
  useEffect(() => {
    let live = true
    void openRenderFile(render.id).then((found) => {
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
    <Box sx={{ display: 'flex', flexDirection: 'column', minHeight: 0, minWidth: 0, gap: 1 }}>
      {missing && <Typography sx={{ color: '#fff' }}>{wording.theFileIsNoLonger}</Typography>}
      {url && (
        <Box
          component="video"
          ref={video}
          src={url}
          controls={!follows}
          muted={follows}
          autoPlay={!follows}
          onTimeUpdate={onTime}
          onPlay={onTime}
          onPause={onTime}
          onSeeked={onTime}
          aria-label={follows ? wording.beside(nameOf(render)) : render.edit.highlight.name}
          sx={{ flex: 1, minHeight: 0, maxWidth: '100%', objectFit: 'contain' }}
        />
      )}
      <Typography noWrap title={nameOf(render)} sx={{ color: '#fff', fontSize: textSize.note }}>
        {nameOf(render)}
      </Typography>
    </Box>
  )
}
