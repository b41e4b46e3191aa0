'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Link from 'next/link'
import { usePathname } from 'next/navigation'
import { useState, type ReactNode } from 'react'
import { HelpDialog } from './HelpDialog'
import { palette, textSize } from './theme'

const PLACES = [
  { href: '/', name: 'Shelf', holds: 'Recordings, and the highlights cut from them' },
  { href: '/rack', name: 'Rack', holds: 'Saved setups, layouts, recipes, brands and outlets' },
  { href: '/outbox', name: 'Outbox', holds: 'Finished files, and renders at work' },
]

const isIn = (path: string, href: string) => path === href || (href !== '/' && path.startsWith(`${href}/`))

/** The bar at the top of every screen: the places on the left, then what a screen puts there. */
export function TopBar({ title, children }: { title?: ReactNode; children?: ReactNode }) {
  const path = usePathname()
  const [helping, setHelping] = useState(false)
  return (
    <Box
      component="header"
      sx={{
        display: 'flex',
        alignItems: 'center',
        flexWrap: 'wrap',
        columnGap: { xs: 1.5, lg: 4 },
        rowGap: 1,
        minHeight: 44,
        px: 3.5,
        py: 1,
        flex: 'none',
        bgcolor: 'background.paper',
        borderBottom: 1,
        borderColor: 'divider',
        minWidth: 0,
      }}
    >
      <Box
        component={Link}
        href="/"
        sx={{
          fontWeight: 700,
          fontSize: textSize.title,
          color: palette.leaf,
          textDecoration: 'none',
          letterSpacing: '-0.01em',
        }}
      >
        Brimble
      </Box>
      <Box component="nav" aria-label="Places" sx={{ display: 'flex', gap: 4 }}>
        {PLACES.map(({ href, name, holds }) => (
          <Box
            key={href}
            component={Link}
            href={href}
            title={holds}
            aria-current={path === href ? 'page' : undefined}
            sx={{
              color: isIn(path, href) ? palette.ink : palette.inkSoft,
              fontWeight: isIn(path, href) ? 700 : 500,
              fontSize: textSize.body,
              textDecoration: 'none',
              '&:hover': { color: palette.ink },
            }}
          >
            {name}
          </Box>
        ))}
      </Box>
      <Button
        variant="text"
        onClick={() => setHelping(true)}
        sx={{ px: 1, ml: -1, minWidth: 0, color: palette.inkSoft, fontSize: textSize.body, fontWeight: 500 }}
      >
        Help
      </Button>
      {title}
      <Box sx={{ flex: 1 }} />
      {children}
      {helping && <HelpDialog path={path} onClose={() => setHelping(false)} />}
    </Box>
  )
}
