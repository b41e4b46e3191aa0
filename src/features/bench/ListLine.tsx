'use client'

import MoreHorizIcon from '@mui/icons-material/MoreHoriz'
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import type { MouseEvent, ReactNode } from 'react'
import { iconSize, palette, textSize } from '@/ui/theme'

/** A line of a list below the shapes: where the thing is, what it is, perhaps a fact, and a button for its ticket. */
export function ListLine({
  place,
  fact,
  moreLabel,
  isSelected = false,
  onSelect,
  onMore,
  children,
}: {
  place: string
  fact?: ReactNode
  moreLabel: string
  isSelected?: boolean
  onSelect?: () => void
  onMore: (button: HTMLElement) => void
  children: ReactNode
}) {
  return (
    <Box
      onClick={onSelect}
      sx={{
        display: 'grid',
        gridTemplateColumns: `56px minmax(0, 1fr) auto${fact === undefined ? '' : ' auto'}`,
        columnGap: 2,
        alignItems: 'center',
        px: 3,
        minHeight: 32,
        borderBottom: 1,
        borderColor: 'divider',
        bgcolor: isSelected ? palette.leafTint : undefined,
      }}
    >
      <Box sx={{ fontSize: textSize.note, color: palette.inkSoft }}>{place}</Box>
      {children}
      {fact}
      <IconButton
        size="small"
        aria-label={moreLabel}
        aria-haspopup="dialog"
        onClick={(e: MouseEvent<HTMLElement>) => onMore(e.currentTarget)}
      >
        <MoreHorizIcon sx={{ fontSize: iconSize.medium }} />
      </IconButton>
    </Box>
  )
}
