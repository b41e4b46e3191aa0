'use client'

import Box from '@mui/material/Box'
import Link from 'next/link'
import { usePathname } from 'next/navigation'
import type { ReactNode } from 'react'
import { palette, textSize } from '@/ui/theme'
import { TopBar } from '@/ui/TopBar'
import { BinButton } from '../bin/BinButton'
import { StorageRoom } from '../bin/StorageRoom'
import { wording } from './wording'

const SCREENS = [
  { href: '/outbox', name: 'Files' },
  { href: '/outbox/sheet', name: wording.contactSheet },
  { href: '/outbox/week', name: wording.theWeek },
]

/** The frame of the Outbox's screens, with the way from one to the other. */
export function OutboxFrame({ children }: { children: ReactNode }) {
  const path = usePathname()
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: '100dvh' }}>
      <TopBar>
        <Box component="nav" aria-label={wording.outbox} sx={{ display: 'flex', gap: 4 }}>
          {SCREENS.map(({ href, name }) => (
            <Box
              key={href}
              component={Link}
              href={href}
              aria-current={path === href ? 'page' : undefined}
              sx={{
                color: path === href ? palette.leaf : palette.inkSoft,
                fontWeight: path === href ? 700 : 500,
                fontSize: textSize.body,
                textDecoration: 'none',
                '&:hover': { color: palette.ink },
              }}
            >
              {name}
            </Box>
          ))}
        </Box>
        <StorageRoom />
        <BinButton />
      </TopBar>
      <Box component="main" sx={{ flex: 1, display: 'flex', flexDirection: 'column', minHeight: 0 }}>
        {children}
      </Box>
    </Box>
  )
}
