'use client'

import Box from '@mui/material/Box'
import type { Rect, Size } from '@/core/geometry/rect'
import { fonts, palette, textSize } from '@/ui/theme'
import { PixelField } from './PixelField'
import { wording } from './wording'

/** The size and place of a rectangle in a frame of size `frame`, px, to be typed. `of` begins each field's name. */
export function RectFields({
  rect,
  frame,
  of,
  onSet,
}: {
  rect: Rect
  frame: Size
  of: string
  onSet: (part: Partial<Rect>) => void
}) {
  const field = (key: keyof Rect, label: string) => (
    <PixelField
      label={`${of} ${label}`}
      value={rect[key]}
      most={key === 'x' || key === 'width' ? frame.width : frame.height}
      onSet={(value) => onSet({ [key]: value })}
    />
  )
  return (
    <Box
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: '4px',
        fontFamily: fonts.numbers,
        fontSize: textSize.note,
        color: palette.inkSoft,
      }}
    >
      {field('width', 'width')}
      <span>×</span>
      {field('height', 'height')}
      <span>{wording.atLowercase}</span>
      {field('x', 'left')}
      <span>,</span>
      {field('y', 'top')}
    </Box>
  )
}
