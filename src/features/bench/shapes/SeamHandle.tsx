'use client'

import Box from '@mui/material/Box'
import { memo } from 'react'
import { seamPosition } from '@/core/layout/seams'
import type { Seam } from '@/core/layout/solve'
import type { Shape } from '@/core/model/shape'
import { heldKeys } from '@/ui/heldKeys'
import { palette } from '@/ui/theme'
import { dragSeam } from '@/edit/layouts'
import { useBenchContext, usePassage } from '../benchContext'
import { useDrag } from '@/ui/useDrag'
import { wording } from './wording'

/**
 * The line between two bands: drag it, or move it with the arrow keys (Shift: ten times as far; Alt: in this shape
 * only).
 */
export const SeamHandle = memo(function SeamHandle({ seam, shape }: { seam: Seam; shape: Shape }) {
  const { session } = useBenchContext()
  const { passage } = usePassage()
  const column = seam.axis === 'column'
  const { sizes } = seam
  const position = seamPosition(seam)
  const move = (to: number, gesture: string, only: boolean) =>
    dragSeam(session, { scope: { passageId: passage.id, shape, only }, seam, position: to }, gesture)

  const dragging = useDrag((event) => {
    const host = event.currentTarget.parentElement?.getBoundingClientRect()
    if (!host) return null
    const perCss = shape.width / host.width
    return ({ dx, dy, gesture, altKey }) => move(position + (column ? dy : dx) * perCss, gesture, altKey)
  })

  const onKeyDown = heldKeys({
    arrow: ({ dx, dy, times, alt }) => {
      const by = column ? dy : dx
      if (by === 0) return false
      move(position + by * 2 * times, `keys seam ${[...seam.path, seam.index].join('.')}`, alt)
    },
  })

  const middle = column ? seam.rect.y + seam.rect.height / 2 : seam.rect.x + seam.rect.width / 2
  return (
    <Box
      role="separator"
      tabIndex={0}
      aria-orientation={column ? 'horizontal' : 'vertical'}
      aria-label={wording.seamBetweenBands(shape.id)}
      aria-valuemin={0}
      aria-valuemax={seam.stackLength}
      aria-valuenow={position}
      aria-valuetext={wording.andPixels(sizes[seam.index], sizes[seam.index + 1])}
      onPointerDown={dragging}
      onKeyDown={onKeyDown}
      sx={{
        position: 'absolute',
        zIndex: 3,
        touchAction: 'none',
        cursor: column ? 'row-resize' : 'col-resize',
        ...(column
          ? { left: 0, right: 0, top: `${(middle / shape.height) * 100}%`, height: 14, mt: '-7px' }
          : { top: 0, bottom: 0, left: `${(middle / shape.width) * 100}%`, width: 14, ml: '-7px' }),
        '&::after': {
          content: '""',
          position: 'absolute',
          bgcolor: '#fff',
          opacity: 0.55,
          borderRadius: 2,
          boxShadow: '0 0 2px rgba(0,0,0,.6)',
          ...(column
            ? { left: 'calc(50% - 16px)', width: 32, top: 5, height: 4 }
            : { top: 'calc(50% - 16px)', height: 32, left: 5, width: 4 }),
        },
        '&:hover::after': { opacity: 1 },
        '&:focus-visible': { outline: `2px solid ${palette.straw}`, outlineOffset: -4 },
      }}
    />
  )
})
