'use client'

import Box from '@mui/material/Box'
import type { KeyboardEvent } from 'react'
import { frameStartMicros } from '@/core/time/frameRate'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { formatTime } from '@/ui/format'
import { fonts, palette } from '@/ui/theme'
import { partsOf, useBenchContext, useEdit } from '../benchContext'
import { setCutPoint } from '../edits'
import { useDrag } from '../useDrag'

/** The in or out point as a bar across the Sheet: drag it, or arrows a frame and Shift + arrows a second. */
export function CutHandle({ which, microsPerPixel }: { which: 'in' | 'out'; microsPerPixel: number }) {
  const { session, player } = useBenchContext()
  const { passage, recording } = partsOf(useEdit())
  const t = which === 'in' ? passage.inMicros : passage.outMicros
  const set = (to: number, gesture: string) => {
    setCutPoint(session, which, to, gesture)
    const now = partsOf(session.edit).passage
    player.seek(which === 'in' ? now.inMicros : now.outMicros - 1)
  }
  const dragging = useDrag(() => {
    player.pause()
    return ({ dy, gesture }) => set(t + dy * microsPerPixel, gesture)
  })
  const onKeyDown = (event: KeyboardEvent) => {
    const direction = event.key === 'ArrowDown' || event.key === 'ArrowRight' ? 1 : event.key === 'ArrowUp' || event.key === 'ArrowLeft' ? -1 : 0
    if (direction === 0) return
    event.preventDefault()
    event.stopPropagation()
    set(t + direction * (event.shiftKey ? MICROS_PER_SECOND : frameStartMicros(1, recording.video.frameRate)), `keys ${which}`)
  }
  const below = which === 'out'
  return (
    <Box
      role="slider"
      tabIndex={0}
      aria-orientation="vertical"
      aria-label={which === 'in' ? 'In point' : 'Out point'}
      aria-valuemin={0}
      aria-valuemax={recording.durationMicros / MICROS_PER_SECOND}
      aria-valuenow={t / MICROS_PER_SECOND}
      aria-valuetext={formatTime(t, 3)}
      onPointerDown={dragging}
      onKeyDown={onKeyDown}
      sx={{
        position: 'absolute',
        left: 0,
        right: 0,
        top: t / microsPerPixel,
        height: 20,
        mt: below ? 0 : '-20px',
        zIndex: 3,
        cursor: 'ns-resize',
        touchAction: 'none',
        display: 'flex',
        alignItems: 'center',
        gap: 2,
        px: 2.5,
        color: '#fff',
        bgcolor: palette.leaf,
        fontFamily: fonts.numbers,
        fontSize: 11.5,
        borderRadius: below ? '0 0 4px 4px' : '4px 4px 0 0',
        '&:focus-visible': { outline: `2px solid ${palette.straw}` },
      }}
    >
      <span>{which}</span>
      <span>{formatTime(t, 3)}</span>
    </Box>
  )
}
