'use client'

import Box from '@mui/material/Box'
import type { ReactNode } from 'react'

/** The bar below the heading of the Outbox's screens; a region of the page when it has a name. */
export function OutboxBar({ label, children }: { label?: string; children: ReactNode }) {
  return (
    <Box
      role={label === undefined ? undefined : 'region'}
      aria-label={label}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 3,
        px: 4.5,
        minHeight: 48,
        flex: 'none',
        borderBottom: 1,
        borderColor: 'divider',
        bgcolor: 'background.paper',
      }}
    >
      {children}
    </Box>
  )
}
