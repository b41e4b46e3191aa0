'use client'

import MoreHoriz from '@mui/icons-material/MoreHoriz'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import LinearProgress from '@mui/material/LinearProgress'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import Typography from '@mui/material/Typography'
import { useRouter } from 'next/navigation'
import { useState, type ReactNode } from 'react'
import { useStore } from 'zustand'
import type { Render } from '@/core/model/render'
import { isBeside, sizeOfFile } from '@/core/output/renderSettings'
import { binRender } from '@/store/bin'
import { copyHighlight } from '@/store/highlights'
import { formatBytes, formatRate, formatSize } from '@/ui/format'
import { offerDownload } from '@/ui/offerDownload'
import { fonts, palette, textSize } from '@/ui/theme'
import { useOffer } from '@/ui/useOffer'
import { filesOf } from '@/shared/rendering/filesOf'
import { failureMessage, wording } from './wording'
import { TakeBack } from './nodes/TakeBack'
import { renderPreparing, renderProgress, type Preparing } from '@/shared/rendering/progress'
import { cancelRender, removeRender, retryRender } from './renderQueue'

/** One render: its progress while it runs, its file when it is done, the reason when it failed. */
export function RenderRow({
  render,
  onPlay,
  playing = false,
  handle = null,
}: {
  render: Render
  onPlay?: () => void
  playing?: boolean
  handle?: ReactNode
}) {
  const { state, shape, settings, edit } = render
  return (
    <Box
      component="article"
      aria-label={`${edit.highlight.name}, ${shape.id}`}
      data-state={state.kind}
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(200px, 320px) minmax(0, 1fr) auto',
        gap: 4,
        alignItems: 'center',
        px: 4.5,
        py: 2,
        minHeight: 56,
        borderBottom: 1,
        borderColor: 'divider',
        bgcolor: playing ? palette.leafTint : undefined,
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, minWidth: 0 }}>
        {handle}
        <Box sx={{ minWidth: 0 }}>
          <Typography noWrap title={edit.highlight.name} sx={{ fontWeight: 700, fontSize: textSize.lead }}>
            {edit.highlight.name}
          </Typography>
          <Box
            sx={{
              fontFamily: fonts.numbers,
              fontSize: textSize.small,
              color: palette.inkSoft,
              whiteSpace: 'nowrap',
              overflow: 'hidden',
              textOverflow: 'ellipsis',
            }}
          >
            {shape.id} {formatSize(sizeOfFile(render))} · {formatRate(settings.frameRate)}
            {isBeside(settings.captions) && wording.captionsBeside}
          </Box>
        </Box>
      </Box>
      <StateOf render={render} />
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center' }}>
        {(state.kind === 'running' || state.kind === 'waiting') && (
          <Button onClick={() => void cancelRender(render)}>{wording.cancel}</Button>
        )}
        {state.kind === 'failed' && (
          <Button variant="contained" color="primary" onClick={() => void retryRender(render)}>
            {wording.retry}
          </Button>
        )}
        {state.kind === 'finished' && (
          <>
            <Button onClick={onPlay} aria-pressed={playing}>
              {playing ? wording.playing : wording.play}
            </Button>
            <Button variant="contained" color="primary" onClick={() => void save(render)}>
              {wording.save}
            </Button>
          </>
        )}
        {state.kind === 'away' && <TakeBack id={render.id} />}
        {(state.kind === 'finished' ||
          state.kind === 'failed' ||
          state.kind === 'made-away' ||
          state.kind === 'away') && <More render={render} />}
      </Box>
    </Box>
  )
}

function More({ render }: { render: Render }) {
  const router = useRouter()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const { name } = render.edit.highlight
  const offer = useOffer()
  const remove = async () => {
    await removeRender(render)
    if (render.state.kind === 'finished')
      offer({
        words: wording.isInTheBin(render.state.file.fileName),
        button: wording.undo,
        act: () => void binRender(render.id, false),
      })
  }
  const openAsItWas = async () => {
    const copy = await copyHighlight(render.edit, wording.asRendered(name).slice(0, 200))
    router.push(`/highlight/${copy.id}`)
  }
  return (
    <>
      <IconButton
        size="small"
        aria-label={wording.moreFor(name, render.shape.id)}
        aria-haspopup="menu"
        onClick={(e) => setAnchor(e.currentTarget)}
      >
        <MoreHoriz fontSize="small" />
      </IconButton>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <MenuItem onClick={() => router.push(`/highlight/${render.highlightId}`)}>{wording.openTheHighlight}</MenuItem>
        <MenuItem onClick={() => void openAsItWas()}>{wording.openAsItWasAs}</MenuItem>
        <MenuItem
          onClick={() => {
            setAnchor(null)
            void remove()
          }}
        >
          {render.state.kind === 'finished' ? wording.moveToTheBin : wording.remove}
        </MenuItem>
      </Menu>
    </>
  )
}

function StateOf({ render }: { render: Render }) {
  const { state } = render
  switch (state.kind) {
    case 'waiting':
      return <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>{wording.waiting}</Typography>
    case 'running':
      return <Running render={render} />
    case 'away':
      return <Progress render={render} before={wording.withTheRenderNodesWaiting} />
    case 'made-away':
      return (
        <Facts
          name={state.names[0] ?? ''}
          facts={[
            formatBytes(state.sizeBytes),
            `${state.frames} frames in ${(state.tookMs / 1000).toFixed(1)} s`,
            wording.inTheRenderNodesFolder(state.node),
          ]}
        />
      )
    case 'failed':
      return (
        <Typography role="alert" sx={{ fontSize: textSize.body, color: palette.haw }}>
          {failureMessage(state.failure)}
        </Typography>
      )
    case 'finished':
      return <Finished file={state.file} />
  }
}

const EXTRAS = { poster: wording.aStill, loop: wording.aLoop } as const
const CODINGS = {
  'mp4 avc': null,
  'mp4 vp9': wording.vp9AndOpusInMp4,
  'mp4 av1': wording.av1AndOpusInMp4,
  'webm vp9': wording.vp9AndOpusInWebm,
  'webm av1': wording.av1AndOpusInWebm,
} as const

function Finished({ file }: { file: Extract<Render['state'], { kind: 'finished' }>['file'] }) {
  const coded = CODINGS[`${file.container} ${file.videoCodec}` as keyof typeof CODINGS]
  const facts = [
    formatBytes(file.sizeBytes),
    `${file.frames} frames in ${(file.tookMs / 1000).toFixed(1)} s`,
    file.framesTakenOver > 0 ? wording.ofThemAsRecorded(file.framesTakenOver) : null,
    coded,
    file.extras.length > 0 ? wording.withIt(file.extras.map((e) => EXTRAS[e.kind]).join(' and ')) : null,
    file.savedAs === null ? null : wording.inTheFolderAs(file.savedAs),
    file.shippedAac ? wording.soundByBrimblesOwnAac : null,
  ].filter((fact) => fact !== null)
  return <Facts name={file.fileName} facts={facts} />
}

function Facts({ name, facts }: { name: string; facts: readonly string[] }) {
  return (
    <Box sx={{ minWidth: 0 }}>
      <Typography noWrap title={name} sx={{ fontSize: textSize.body }}>
        {name}
      </Typography>
      <Box
        title={facts.join(' · ')}
        sx={{
          fontFamily: fonts.numbers,
          fontSize: textSize.small,
          color: palette.inkSoft,
          whiteSpace: 'nowrap',
          overflow: 'hidden',
          textOverflow: 'ellipsis',
        }}
      >
        {facts.join(' · ')}
      </Box>
    </Box>
  )
}

const PREPARING: Record<Preparing, string> = {
  starting: wording.starting,
  measuring: wording.measuringOnceWhatDrawsFastest,
}

function Running({ render }: { render: Render }) {
  const before = useStore(renderPreparing, ({ ids, doing }) =>
    ids.includes(render.id) ? PREPARING[doing] : wording.atWorkInAnotherTab,
  )
  return <Progress render={render} before={before} />
}

function Progress({ render, before }: { render: Render; before: string }) {
  const progress = useStore(renderProgress, (all) => all[render.id])
  if (!progress) return <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>{before}</Typography>
  const done = (progress.frame / progress.frames) * 100
  return (
    <Box>
      {/* It does not glide: a bar that moves all the time takes a tenth of two cores from what it tells of. */}
      <LinearProgress
        variant="determinate"
        value={done}
        aria-label={wording.rendering(render.edit.highlight.name)}
        sx={{ '& .MuiLinearProgress-bar': { transition: 'none' } }}
      />
      <Box sx={{ mt: 1, fontFamily: fonts.numbers, fontSize: textSize.small, color: palette.inkSoft }}>
        {wording.frameOfFramesSS(
          progress.frame,
          progress.frames,
          progress.rate.toFixed(0),
          Math.ceil(progress.secondsLeft),
        )}
        {render.state.kind === 'away' && wording.atARenderNode}
      </Box>
    </Box>
  )
}

async function save(render: Render): Promise<void> {
  for (const { name, blob } of await filesOf(render)) offerDownload(blob, name)
}
