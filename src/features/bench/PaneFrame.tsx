'use client'

import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import Tooltip from '@mui/material/Tooltip'
import type { ReactNode } from 'react'
import { Kbd } from '@/ui/Kbd'
import { palette, textSize } from '@/ui/theme'
import { useBenchContext, useView, type Pane } from './benchContext'
import { wording } from './wording'

/**
 * One of the Bench's three panes: its heading with its key, its tools, its contents. The one at work has a leaf-green
 * edge; Tab makes a pane that by itself, so that its heading is no stop of it.
 */
export function PaneFrame({
  pane,
  digit,
  title,
  tools,
  children,
}: {
  pane: Pane
  digit: string
  title: string
  tools?: ReactNode
  children: ReactNode
}) {
  const { view } = useBenchContext()
  const focused = useView((v) => v.pane === pane)
  return (
    <Box
      component="section"
      aria-label={title}
      // Stacked by itself: what was painted of it is used again while something moves elsewhere.
      sx={{
        isolation: 'isolate',
        display: 'flex',
        flexDirection: 'column',
        minWidth: 0,
        minHeight: 0,
        borderRight: 1,
        borderColor: 'divider',
        boxShadow: focused ? `inset 0 2px 0 ${palette.leaf}` : 'none',
      }}
    >
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          flexWrap: 'wrap',
          columnGap: 2,
          minHeight: 34,
          flex: 'none',
          px: 3,
          borderBottom: 1,
          borderColor: 'divider',
        }}
      >
        <Box component="h2" sx={{ m: 0 }}>
          <Tooltip describeChild title={focused ? wording.thisPaneIsTheWide : wording.makeThisPaneTheWide(digit)}>
            <ButtonBase
              tabIndex={-1}
              aria-pressed={focused}
              aria-keyshortcuts={digit}
              onClick={() => view.setState({ pane })}
              sx={{
                gap: 2,
                px: 1,
                mx: -1,
                py: '2px',
                borderRadius: '3px',
                fontFamily: 'inherit',
                fontSize: textSize.body,
                fontWeight: 700,
                '&:hover': { color: palette.leaf },
              }}
            >
              {title}
              <Kbd>{digit}</Kbd>
            </ButtonBase>
          </Tooltip>
        </Box>
        <Box sx={{ flex: 1 }} />
        {tools}
      </Box>
      {children}
    </Box>
  )
}
