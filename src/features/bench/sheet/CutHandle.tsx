'use client'

import Box from '@mui/material/Box'
import type { FocusEvent } from 'react'
import { oneFrame } from '@/core/cut/passages'
import { passageOf } from '@/core/model/edit'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import type { PlacedPassage } from '@/core/time/timeMap'
import { formatTime } from '@/ui/format'
import { heldKeys } from '@/ui/heldKeys'
import { fonts, palette, textSize } from '@/ui/theme'
import { trimPassage } from '@/edit/passages'
import { useBenchContext, usePassage } from '../benchContext'
import { useDrag } from '@/ui/useDrag'
import { HANDLE_HEIGHT } from './sheetLayout'
import { wording } from './wording'

export interface CutHandleProps {
  placed: PlacedPassage
  which: 'in' | 'out'
  /** Where the cut lies on the Sheet, px. */
  top: number
  recordingPerPixel: number
  /** Whether there is more than one passage, so that names must tell them apart. */
  several: boolean
  /** The handle was taken up: what lies beyond the cut is to be shown. */
  onTake: () => void
  onLetGo: () => void
}

/**
 * A passage's in or out point as a bar across the Sheet: drag it, or arrows a frame and Shift + arrows a second. The
 * picture and the sound at the cut are shown as it moves.
 */
export function CutHandle({ placed, which, top, recordingPerPixel, several, onTake, onLetGo }: CutHandleProps) {
  const { session, player, view } = useBenchContext()
  const { passage, index } = placed
  const { recording } = usePassage()
  const t = which === 'in' ? passage.inMicros : passage.outMicros
  const look = () => {
    const now = passageOf(session.value, passage.id)
    // The out point is the first frame that is no longer shown: the one before it is what the cut ends on.
    player.peek(passage.id, which === 'in' ? now.inMicros : now.outMicros - 1)
  }
  const set = (to: Micros, gesture: string) => {
    trimPassage(session, { id: passage.id, which, t: to }, gesture)
    look()
  }
  const dragging = useDrag((event) => {
    player.pause()
    ;(event.currentTarget as HTMLElement).focus()
    return ({ dy, gesture }) => set(t + dy * recordingPerPixel, gesture)
  })
  const onKeyDown = heldKeys({
    arrow: ({ dx, dy, times }) =>
      set(t + (dx + dy) * (times > 1 ? MICROS_PER_SECOND : oneFrame(recording)), `keys ${which} ${passage.id}`),
  })
  const onFocus = () => {
    view.setState({ passageId: passage.id })
    onTake()
  }
  const onBlur = (event: FocusEvent) => {
    // Losing the window is not letting go.
    if (event.relatedTarget !== null || document.activeElement !== event.target) onLetGo()
  }
  const below = which === 'out'
  return (
    <Box
      role="slider"
      tabIndex={0}
      aria-orientation="vertical"
      aria-label={wording.point(which, several, index)}
      aria-valuemin={0}
      aria-valuemax={recording.durationMicros / MICROS_PER_SECOND}
      aria-valuenow={t / MICROS_PER_SECOND}
      aria-valuetext={formatTime(t, 3)}
      onPointerDown={dragging}
      onKeyDown={onKeyDown}
      onFocus={onFocus}
      onBlur={onBlur}
      sx={{
        position: 'absolute',
        left: 0,
        right: 0,
        top: below ? top : top - HANDLE_HEIGHT,
        height: HANDLE_HEIGHT,
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
        fontSize: textSize.small,
        borderRadius: below ? '0 0 4px 4px' : '4px 4px 0 0',
        '&:focus-visible': { outline: `2px solid ${palette.straw}` },
      }}
    >
      <span>{which}</span>
      <span>{formatTime(t, 3)}</span>
    </Box>
  )
}
