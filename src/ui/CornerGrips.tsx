import Box from '@mui/material/Box'

const CORNERS = ['nw', 'ne', 'se', 'sw'] as const

/**
 * The corners by which something is resized, `size` px wide; what they lie on listens to what is dragged, and tells
 * them apart by `data-<name>`.
 */
export function CornerGrips({ name, size, colour }: { name: string; size: number; colour: string }) {
  return CORNERS.map((grip) => (
    <Box
      key={grip}
      aria-hidden
      {...{ [`data-${name}`]: grip }}
      sx={{
        position: 'absolute',
        width: size,
        height: size,
        cursor: `${grip}-resize`,
        ...(grip.includes('n') ? { top: -size / 2 } : { bottom: -size / 2 }),
        ...(grip.includes('w') ? { left: -size / 2 } : { right: -size / 2 }),
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
