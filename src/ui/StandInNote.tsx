'use client'

import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import type { ReactNode } from 'react'
import { palette, textSize } from './theme'

interface StandInNoteProps<F extends string> {
  children: ReactNode
  /** How it can be set to fail, with words for each. */
  faults: Record<F, string>
  fault: F
  onFault: (fault: F) => void
  /** Whether it stands in a dialog, whose words begin further in. */
  inDialog?: boolean
}

/** Says that no real service is there, and lets the stand-in fail as real ones do, for trying out. */
export function StandInNote<F extends string>({
  children,
  faults,
  fault,
  onFault,
  inDialog = false,
}: StandInNoteProps<F>) {
  return (
    <Box
      role="note"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 3,
        px: inDialog ? 6 : 4.5,
        py: 2.5,
        borderBottom: 1,
        borderColor: 'divider',
        bgcolor: '#F6EBD3',
      }}
    >
      <Typography sx={{ fontSize: textSize.body, color: palette.strawInk, flex: 1 }}>
        <strong>Stand-in.</strong> {children}
      </Typography>
      <TextField
        select
        size="small"
        label="The stand-in"
        value={fault}
        onChange={(e) => onFault(e.target.value as F)}
        sx={{ width: 190, flex: 'none', bgcolor: palette.sheet }}
      >
        {Object.entries<string>(faults).map(([id, name]) => (
          <MenuItem key={id} value={id}>
            {name}
          </MenuItem>
        ))}
      </TextField>
    </Box>
  )
}
