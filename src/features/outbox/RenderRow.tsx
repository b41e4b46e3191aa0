'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import Typography from '@mui/material/Typography'
import { useStore } from 'zustand'
import { captionFilesOf } from '@/core/interchange/captionsOf'
import type { Render } from '@/core/model/render'
import { isBeside } from '@/core/output/renderSettings'
import { openRenderFile } from '@/media/render/partFile'
import { formatBytes, formatRate, formatSize } from '@/ui/format'
import { offerDownload } from '@/ui/offerDownload'
import { fonts, palette } from '@/ui/theme'
import { failureMessage } from './messages'
import { cancelRender, privateName, removeRender, renderProgress, retryRender } from './renderQueue'

/** One render: its progress while it runs, its file when it is done, the reason when it failed. */
export function RenderRow({ render, onPlay, playing }: { render: Render; onPlay: () => void; playing: boolean }) {
  const { state, shape, settings, edit } = render
  return (
    <Box
      component="article"
      aria-label={`${edit.highlight.name}, ${shape.id}`}
      data-state={state.kind}
      sx={{ display: 'grid', gridTemplateColumns: 'minmax(200px, 300px) minmax(0, 1fr) auto', gap: 4, alignItems: 'center', px: 4.5, py: 2, minHeight: 56, borderBottom: 1, borderColor: 'divider', bgcolor: playing ? palette.leafTint : undefined }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Typography noWrap title={edit.highlight.name} sx={{ fontWeight: 700, fontSize: 14 }}>
          {edit.highlight.name}
        </Typography>
        <Box sx={{ fontFamily: fonts.numbers, fontSize: 11.5, color: palette.inkSoft }}>
          {shape.id} {formatSize(shape)} · {formatRate(settings.frameRate)}
          {isBeside(settings.captions) && ' · captions beside'}
        </Box>
      </Box>
      <StateOf render={render} />
      <Box sx={{ display: 'flex', gap: 1.5 }}>
        {(state.kind === 'running' || state.kind === 'waiting') && <Button onClick={() => void cancelRender(render)}>Cancel</Button>}
        {state.kind === 'failed' && (
          <Button variant="contained" color="primary" onClick={() => void retryRender(render)}>
            Retry
          </Button>
        )}
        {state.kind === 'finished' && (
          <>
            <Button onClick={onPlay} aria-pressed={playing}>
              {playing ? 'Playing' : 'Play'}
            </Button>
            <Button variant="contained" color="primary" onClick={() => void saveFile(render)}>
              Save
            </Button>
          </>
        )}
        {(state.kind === 'finished' || state.kind === 'failed') && <Button onClick={() => void removeRender(render)}>Remove</Button>}
      </Box>
    </Box>
  )
}

function StateOf({ render }: { render: Render }) {
  const { state } = render
  switch (state.kind) {
    case 'waiting':
      return <Typography sx={{ fontSize: 13, color: palette.inkSoft }}>Waiting for the render before it</Typography>
    case 'running':
      return <Progress render={render} />
    case 'failed':
      return (
        <Typography role="alert" sx={{ fontSize: 13, color: palette.haw }}>
          {failureMessage(state.failure)}
        </Typography>
      )
    case 'finished':
      return (
        <Box sx={{ minWidth: 0 }}>
          <Typography noWrap title={state.file.fileName} sx={{ fontSize: 13 }}>
            {state.file.fileName}
          </Typography>
          <Box sx={{ fontFamily: fonts.numbers, fontSize: 11.5, color: palette.inkSoft }}>
            {formatBytes(state.file.sizeBytes)} · {state.file.frames} frames in {(state.file.tookMs / 1000).toFixed(1)} s{state.file.container === 'webm' && ' · VP9 and Opus in WebM: this browser cannot write MP4'}
            {state.file.shippedAac && ' · sound by Brimble’s own AAC encoder'}
          </Box>
        </Box>
      )
  }
}

function Progress({ render }: { render: Render }) {
  const progress = useStore(renderProgress, (all) => all[render.id])
  if (!progress) return <Typography sx={{ fontSize: 13, color: palette.inkSoft }}>Starting, or at work in another tab</Typography>
  const done = (progress.frame / progress.frames) * 100
  return (
    <Box>
      <LinearProgress variant="determinate" value={done} aria-label={`Rendering ${render.edit.highlight.name}`} />
      <Box sx={{ mt: 1, fontFamily: fonts.numbers, fontSize: 11.5, color: palette.inkSoft }}>
        frame {progress.frame} of {progress.frames} · {progress.rate.toFixed(0)} frames/s · {Math.ceil(progress.secondsLeft)} s left
      </Box>
    </Box>
  )
}

async function saveFile(render: Render): Promise<void> {
  const file = await openRenderFile(privateName(render))
  if (!file || render.state.kind !== 'finished') return
  const { fileName } = render.state.file
  offerDownload(file, fileName)
  if (!isBeside(render.settings.captions)) return
  for (const { ending, type, text } of captionFilesOf(render.edit)) offerDownload(new Blob([text], { type }), fileName.replace(/\.[^.]+$/, `.${ending}`))
}
