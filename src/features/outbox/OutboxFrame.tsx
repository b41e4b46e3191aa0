'use client'

import Box from '@mui/material/Box'
import type { ReactNode } from 'react'
import { TopBar } from '@/ui/TopBar'

/** The frame of the Outbox's screens. */
export function OutboxFrame({ children }: { children: ReactNode }) {
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: '100dvh' }}>
      <TopBar />
      <Box component="main" sx={{ flex: 1, display: 'flex', flexDirection: 'column', minHeight: 0 }}>
        {children}
      </Box>
    </Box>
  )
}
