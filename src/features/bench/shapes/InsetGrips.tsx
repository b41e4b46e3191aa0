'use client'

import Box from '@mui/material/Box'

const CORNERS = ['nw', 'ne', 'se', 'sw'] as const

/** The corners by which an inset is resized; the inset itself listens to what is dragged. */
export function InsetGrips({ colour }: { colour: string }) {
  return CORNERS.map((grip) => (
    <Box
      key={grip}
      aria-hidden
      data-inset-grip={grip}
      sx={{
        position: 'absolute',
        width: 14,
        height: 14,
        cursor: `${grip}-resize`,
        ...(grip.includes('n') ? { top: -7 } : { bottom: -7 }),
        ...(grip.includes('w') ? { left: -7 } : { right: -7 }),
        '&::after': {
          content: '""',
          position: 'absolute',
          inset: 3,
          bgcolor: '#fff',
          border: `1px solid ${colour}`,
          pointerEvents: 'none',
        },
      }}
    />
  ))
}
