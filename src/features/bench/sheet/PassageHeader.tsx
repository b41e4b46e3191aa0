'use client'

import DragIndicatorIcon from '@mui/icons-material/DragIndicator'
import TuneIcon from '@mui/icons-material/Tune'
import VolumeOffIcon from '@mui/icons-material/VolumeOffOutlined'
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import Tooltip from '@mui/material/Tooltip'
import { useEffect, useRef, useState } from 'react'
import { recordingOf } from '@/core/model/edit'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import type { PlacedPassage } from '@/core/time/timeMap'
import { heldKeys } from '@/ui/heldKeys'
import { fonts, iconSize, palette, textSize } from '@/ui/theme'
import { useBenchContext, useFootage, useView } from '../benchContext'
import { useDrag } from '@/ui/useDrag'
import { PassageTicket } from './PassageTicket'
import { HEADER_HEIGHT } from './sheetLayout'
import { wording } from './wording'

export interface PassageHeaderProps {
  placed: PlacedPassage
  count: number
  /** While it is dragged: the pointer's height on the screen, or null at the end. */
  onDragTo: (clientY: number | null) => void
  /** It is being moved with the keyboard: it has the focus wherever it comes to lie. */
  carried: boolean
  onCarry: (by: 1 | -1) => void
}

/**
 * A passage's heading: its number, its recording, length and speed. Drag it to move the passage; Alt + ↑ and ↓ do the
 * same.
 */
export function PassageHeader({ placed, count, onDragTo, carried, onCarry }: PassageHeaderProps) {
  const { player } = useBenchContext()
  const element = useRef<HTMLDivElement>(null)
  const edit = useFootage()
  const [ticket, setTicket] = useState<HTMLElement | null>(null)
  const { passage, index, startMicros, endMicros } = placed
  useEffect(() => {
    if (carried) element.current?.focus({ preventScroll: true })
  }, [carried, index])
  const current = useView((v) => v.passageId === passage.id)
  const { name } = recordingOf(edit, passage.recordingId)
  const dragging = useDrag(
    () => {
      player.pause()
      player.seek(startMicros)
      return count > 1 ? ({ dy, clientY }) => Math.abs(dy) > 6 && onDragTo(clientY) : () => {}
    },
    () => onDragTo(null),
  )
  const onKeyDown = heldKeys({
    arrow: ({ dy, alt }) => {
      if (!alt || dy === 0) return false
      onCarry(dy === 1 ? 1 : -1)
    },
    open: setTicket,
  })
  const facts = [
    `${((endMicros - startMicros) / MICROS_PER_SECOND).toFixed(2)} s`,
    passage.speedPercent !== 100 && `${passage.speedPercent} %`,
    passage.sound.gainDb !== 0 && `${passage.sound.gainDb > 0 ? '+' : ''}${passage.sound.gainDb} dB`,
  ]
  return (
    <Box
      ref={element}
      role="group"
      tabIndex={0}
      aria-roledescription={wording.passage}
      aria-label={wording.passageOf(index, count, name)}
      onPointerDown={dragging}
      onKeyDown={onKeyDown}
      sx={{
        height: HEADER_HEIGHT,
        display: 'flex',
        alignItems: 'center',
        gap: 1.5,
        px: 1.5,
        cursor: count > 1 ? 'grab' : 'default',
        touchAction: 'none',
        bgcolor: current ? palette.leafTint : palette.paper,
        '&:focus-visible': { outlineOffset: -2 },
      }}
    >
      {count > 1 && <DragIndicatorIcon aria-hidden sx={{ fontSize: iconSize.small, color: palette.inkSoft }} />}
      <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.note, fontWeight: 700 }}>{index + 1}</Box>
      <Box
        sx={{
          flex: 1,
          minWidth: 0,
          overflow: 'hidden',
          textOverflow: 'ellipsis',
          whiteSpace: 'nowrap',
          fontSize: textSize.note,
        }}
        title={name}
      >
        {name}
      </Box>
      {passage.sound.muted && (
        <VolumeOffIcon titleAccess="muted" sx={{ fontSize: iconSize.small, color: palette.inkSoft }} />
      )}
      <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.small, color: palette.inkSoft, whiteSpace: 'nowrap' }}>
        {facts.filter(Boolean).join(' · ')}
      </Box>
      <Tooltip title={wording.speedSlipSoundEnter}>
        <IconButton
          aria-label={wording.numbersOfPassage(index)}
          aria-haspopup="dialog"
          onPointerDown={(e) => e.stopPropagation()}
          onClick={(e) => setTicket(e.currentTarget)}
          sx={{ p: '3px' }}
        >
          <TuneIcon sx={{ fontSize: iconSize.small }} />
        </IconButton>
      </Tooltip>
      {ticket && <PassageTicket placed={placed} count={count} anchor={ticket} onClose={() => setTicket(null)} />}
    </Box>
  )
}
