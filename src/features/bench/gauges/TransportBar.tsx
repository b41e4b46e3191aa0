'use client'

import RepeatIcon from '@mui/icons-material/Repeat'
import VolumeDownIcon from '@mui/icons-material/VolumeDown'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import Slider from '@mui/material/Slider'
import Tooltip from '@mui/material/Tooltip'
import { useEffect, useRef, useState, useSyncExternalStore, type ReactNode } from 'react'
import { placePanels } from '@/core/compose/placePanels'
import { blowUp } from '@/core/compose/panelCrop'
import type { PreviewEvent } from '@/media/workers/preview.protocol'
import { PlayButton } from '@/ui/PlayButton'
import { formatTime } from '@/ui/format'
import { fonts, iconSize, palette, textSize } from '@/ui/theme'
import { useBenchContext, useCalmEdit, usePassage, useTimeMap } from '../benchContext'
import { BENCH_KEYS } from '../useBenchKeys'
import { FindingsGauge } from './FindingsGauge'
import { LoudnessGauge } from './LoudnessGauge'
import { wording } from './wording'

/** Above this many output pixels for each recorded one, softness is plain to see. */
const BLOWN_UP_WARN = 2.5

/** The strip at the bottom: playing, and the numbers worth keeping in view. */
export function TransportBar() {
  const { player } = useBenchContext()
  const state = useSyncExternalStore(player.subscribe, player.getState, player.getState)
  const { lengthMicros } = useTimeMap()
  const playing = state.kind === 'playing'
  return (
    <Box
      component="footer"
      aria-label={wording.player}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 2.5,
        height: 56,
        flex: 'none',
        px: 3.5,
        bgcolor: 'background.paper',
        borderTop: 1,
        borderColor: 'divider',
        minWidth: 0,
      }}
    >
      <PlayButton screen="bench" bindings={BENCH_KEYS} isPlaying={playing} onToggle={() => player.toggle()} />
      <Tooltip title={wording.playOverAndOverThe}>
        <Button
          aria-label={wording.loop}
          aria-pressed={state.loop}
          onClick={() => player.setLoop(!state.loop)}
          sx={{
            minWidth: 34,
            px: 1,
            ...(state.loop && { '&&': { bgcolor: palette.leafTint, borderColor: palette.leaf } }),
          }}
        >
          <RepeatIcon sx={{ fontSize: iconSize.medium }} />
        </Button>
      </Tooltip>
      <Clock lengthMicros={lengthMicros} rate={playing ? state.rate : 1} />
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, width: 116 }}>
        <IconButton
          aria-label={state.volume === 0 ? wording.soundOn : wording.mute}
          onClick={() => player.setVolume(state.volume === 0 ? 0.5 : 0)}
          sx={{ p: '2px', color: state.volume === 0 ? palette.line : palette.inkSoft }}
        >
          <VolumeDownIcon sx={{ fontSize: iconSize.large }} />
        </IconButton>
        <Slider
          size="small"
          aria-label={wording.volume}
          min={0}
          max={1}
          step={0.05}
          value={state.volume}
          onChange={(_, v) => player.setVolume(v as number)}
          sx={{ color: palette.leaf }}
        />
      </Box>
      <Gauge label={wording.length} value={formatTime(lengthMicros, 2)} />
      <BlownUpGauge />
      <LoudnessGauge />
      <FindingsGauge />
      <PreviewRate />
    </Box>
  )
}

function BlownUpGauge() {
  const edit = useCalmEdit()
  const { passage } = usePassage()
  const panels = edit.highlight.shapes.flatMap((shape) => placePanels(edit, shape, passage))
  const worst = panels.reduce<{ factor: number; role: string } | null>((found, { picture, panel }) => {
    const factor = picture ? blowUp(picture) : 0
    return factor > (found?.factor ?? 0) ? { factor, role: panel.role } : found
  }, null)
  return (
    worst && (
      <Gauge
        label={wording.blownUp(worst.role)}
        value={`${worst.factor.toFixed(2)}×`}
        warn={worst.factor > BLOWN_UP_WARN}
      />
    )
  )
}

function Gauge({ label, value, warn = false }: { label: string; value: ReactNode; warn?: boolean }) {
  return (
    <Box sx={{ pl: 3, borderLeft: 1, borderColor: 'divider', whiteSpace: 'nowrap' }}>
      <Box
        sx={{
          fontFamily: fonts.numbers,
          fontSize: textSize.note,
          fontWeight: 700,
          color: warn ? palette.strawInk : palette.leaf,
        }}
      >
        {value}
      </Box>
      <Box sx={{ fontSize: textSize.small, color: palette.inkSoft }}>{label}</Box>
    </Box>
  )
}

function Clock({ lengthMicros, rate }: { lengthMicros: number; rate: number }) {
  const { player } = useBenchContext()
  const text = useRef<HTMLSpanElement>(null)
  useEffect(
    () =>
      player.onPosition((t) => {
        if (text.current) text.current.textContent = formatTime(t, 2)
      }),
    [player],
  )
  return (
    <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.body, whiteSpace: 'nowrap', minWidth: 150 }}>
      {/* Changes twelve times a second: nothing around it is to be laid out for that. */}
      <Box
        component="span"
        ref={text}
        data-testid="clock"
        sx={{
          display: 'inline-block',
          width: `${formatTime(lengthMicros, 2).length}ch`,
          height: '1lh',
          verticalAlign: 'bottom',
          contain: 'strict',
        }}
      />{' '}
      <Box component="span" sx={{ color: palette.inkSoft }}>
        / {formatTime(lengthMicros, 2)}
      </Box>
      {rate !== 1 && (
        <Box component="span" sx={{ color: palette.strawInk }}>
          {' '}
          {rate}×
        </Box>
      )}
    </Box>
  )
}

/** Frames drawn a second while playing, and what could not be decoded. */
function PreviewRate() {
  const { player, session, view } = useBenchContext()
  const [event, setEvent] = useState<PreviewEvent | null>(null)
  useEffect(
    () =>
      player.observe((e) => {
        if (e.kind === 'drawn') return
        setEvent(e)
        if (e.kind === 'unreadable')
          view.setState({
            unreadable: new Set(session.value.recordings.flatMap((r) => (r.fileName === e.fileName ? [r.id] : []))),
          })
      }),
    [player, session, view],
  )
  if (event?.kind === 'rate')
    return (
      <Gauge
        label={event.share < 1 ? wording.previewDrawnAt(Math.round(event.share * 100)) : wording.preview}
        value={`${Math.round(event.framesPerSecond)} fps`}
      />
    )
  if (event?.kind === 'unreadable')
    return (
      <Box role="alert" sx={{ color: palette.haw, fontSize: textSize.note }}>
        {wording.cannotBeDecodedAt(event.fileName, formatTime(event.atMicros))}
      </Box>
    )
  return null
}
