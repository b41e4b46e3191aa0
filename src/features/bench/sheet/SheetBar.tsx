import Box from '@mui/material/Box'
import type { ReactNode } from 'react'
import { palette, textSize } from '@/ui/theme'

/** A bar at the top of the Sheet that asks about what is below it. */
export function SheetBar({
  label,
  data,
  children,
}: {
  label: string
  data?: Record<string, string>
  children: ReactNode
}) {
  return (
    <Box
      role="group"
      aria-label={label}
      {...data}
      sx={{
        flex: 'none',
        p: 2.5,
        borderBottom: 1,
        borderColor: 'divider',
        bgcolor: 'background.default',
        display: 'grid',
        gap: 2,
        fontSize: textSize.note,
        color: palette.inkSoft,
      }}
    >
      {children}
    </Box>
  )
}
