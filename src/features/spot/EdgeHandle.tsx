'use client'

import Box from '@mui/material/Box'
import { oneFrame } from '@/core/cut/passages'
import type { Moment } from '@/core/model/spotting'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { formatTime } from '@/ui/format'
import { heldKeys } from '@/ui/heldKeys'
import { palette } from '@/ui/theme'
import { useDrag } from '@/ui/useDrag'
import { useSpotContext } from './spotContext'
import { wording } from './wording'

export interface EdgeHandleProps {
  moment: Moment
  which: 'in' | 'out'
  /** Where it lies, percent of the band's width. */
  percent: number
  /** Recording time that one CSS px stands for. */
  perPixel: () => number
  onMove: (t: Micros, gesture: string) => void
}

/** The in or out point of the moment that is picked up: drag it, or ← → a frame and Shift a second. */
export function EdgeHandle({ moment, which, percent, perPixel, onMove }: EdgeHandleProps) {
  const { player, recording } = useSpotContext()
  const t = which === 'in' ? moment.inMicros : moment.outMicros
  const move = (to: Micros, gesture: string) => {
    onMove(to, gesture)
    player.scrub(which === 'in' ? to : to - 1)
  }
  const dragging = useDrag((event) => {
    player.pause()
    ;(event.currentTarget as HTMLElement).focus()
    return ({ dx, gesture }) => move(t + dx * perPixel(), gesture)
  })
  const onKeyDown = heldKeys({
    arrow: ({ dx, times }) => {
      if (dx === 0) return false
      move(t + dx * (times > 1 ? MICROS_PER_SECOND : oneFrame(recording)), `keys ${which} ${moment.id}`)
    },
  })
  return (
    <Box
      role="slider"
      tabIndex={0}
      aria-label={wording.pointOfTheMoment(which)}
      aria-valuemin={0}
      aria-valuemax={recording.durationMicros / MICROS_PER_SECOND}
      aria-valuenow={t / MICROS_PER_SECOND}
      aria-valuetext={formatTime(t, 3)}
      onPointerDown={dragging}
      onKeyDown={onKeyDown}
      sx={{
        position: 'absolute',
        top: 0,
        bottom: 0,
        left: `${percent}%`,
        width: 12,
        ml: '-6px',
        cursor: 'ew-resize',
        touchAction: 'none',
        '&::after': {
          content: '""',
          position: 'absolute',
          left: 4,
          top: 0,
          bottom: 0,
          width: 4,
          bgcolor: palette.leaf,
          borderRadius: '2px',
        },
        '&:focus-visible': { outline: `2px solid ${palette.straw}`, outlineOffset: -2 },
      }}
    />
  )
}
