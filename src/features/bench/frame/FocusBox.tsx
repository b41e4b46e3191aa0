'use client'

import Box from '@mui/material/Box'
import { memo } from 'react'
import { moveRect, resizeRect, type Grip } from '@/core/geometry/resize'
import { scaleRect, type Rect, type Size } from '@/core/geometry/rect'
import type { Region } from '@/core/model/region'
import { CornerGrips } from '@/ui/CornerGrips'
import { heldKeys } from '@/ui/heldKeys'
import { roleMark } from '@/ui/roleMarks'
import { fonts, textSize } from '@/ui/theme'
import { useDrag } from '@/ui/useDrag'
import { setFocus } from '@/edit/regions'
import { isShifted } from '@/core/compose/regionIn'
import { useBenchContext, usePassage } from '../benchContext'
import { wording } from './wording'

/** An arrow key moves a focus by so many px of the frame. */
const STEP = 2

/** Smallest side of a focus, px of the frame. */
const LEAST = 8

/**
 * The part of a region that is not cut where that can be helped: drag it inside the region, or its corners to resize
 * it; by keyboard, arrows move it and Alt + arrows resize it, Shift makes larger steps. Where the region lies
 * differently in this passage it is only shown: it belongs to the region in all of them.
 */
export const FocusBox = memo(function FocusBox({ region, focus, frame }: { region: Region; focus: Rect; frame: Size }) {
  const { session, view } = useBenchContext()
  const { passage } = usePassage()
  const fixed = region.locked || isShifted(passage, region.id)
  const pixels = scaleRect(focus, frame.width, frame.height)
  const options = { bounds: scaleRect(region.bounds, frame.width, frame.height), least: LEAST }
  const set = (rect: Rect, gesture: string) =>
    setFocus(session, { frame, id: region.id, pixels: rect, label: wording.focusOf(region.name) }, gesture)
  const dragging = useDrag((event) => {
    const box = event.currentTarget.closest('[data-testid="frame-picture"]')?.getBoundingClientRect()
    view.setState({ selection: { kind: 'region', id: region.id } })
    if (!box || fixed) return null
    const perPixel = frame.width / box.width
    const grip = (event.target as HTMLElement).dataset.focusGrip as Grip | undefined
    return ({ dx, dy, gesture }) =>
      set(
        grip
          ? resizeRect(pixels, grip, dx * perPixel, dy * perPixel, options)
          : moveRect(pixels, dx * perPixel, dy * perPixel, options.bounds),
        gesture,
      )
  })
  const onKeyDown = heldKeys({
    arrow: ({ dx, dy, times, alt }) => {
      if (fixed) return false
      const [x, y] = [dx * times * STEP, dy * times * STEP]
      set(
        alt ? resizeRect(pixels, 'se', x, y, options) : moveRect(pixels, x, y, options.bounds),
        `keys focus ${region.id} ${alt ? 'size' : 'place'}`,
      )
    },
  })
  const { colour } = roleMark(region.role)
  return (
    <Box
      role="group"
      tabIndex={0}
      aria-roledescription={wording.focus}
      aria-label={wording.focusOf(region.name)}
      onPointerDown={dragging}
      onKeyDown={onKeyDown}
      style={{
        left: `${100 * focus.x}%`,
        top: `${100 * focus.y}%`,
        width: `${100 * focus.width}%`,
        height: `${100 * focus.height}%`,
      }}
      sx={{
        position: 'absolute',
        zIndex: 3,
        touchAction: 'none',
        cursor: fixed ? 'default' : 'move',
        outline: `1.5px dotted ${colour}`,
        boxShadow: 'inset 0 0 0 1px rgba(255, 255, 255, 0.7)',
        '&:focus-visible': { outline: '2px solid #fff' },
      }}
    >
      <Box
        aria-hidden
        sx={{
          position: 'absolute',
          right: 0,
          bottom: 0,
          px: '4px',
          fontFamily: fonts.numbers,
          fontSize: textSize.tiny,
          lineHeight: '14px',
          color: '#fff',
          bgcolor: colour,
          pointerEvents: 'none',
        }}
      >
        {wording.focus}
      </Box>
      {!fixed && <CornerGrips name="focus-grip" size={12} colour={colour} />}
    </Box>
  )
})
