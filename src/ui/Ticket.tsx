'use client'

import Popover from '@mui/material/Popover'
import type { ReactNode } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { SCREEN_KEYS } from './screenKeys'

interface TicketProps {
  /** What it is about: its accessible name. */
  label: string
  anchor: HTMLElement
  onClose: () => void
  /** Under which part of the anchor it hangs; *beside*: to the left of it, so that what it is about stays in view. */
  side?: 'right' | 'center' | 'beside'
  /** CSS px. */
  width?: number
  /** Space between its parts where they stand one under the other. */
  gap?: number
  children: ReactNode
}

/**
 * Exact numbers and choices beside what is picked up. While it is open the screen hears no keys; Esc closes it from
 * anywhere, also when a button in it has gone with what it was for and left the focus to the page.
 */
export function Ticket({ label, anchor, onClose, side = 'right', width = 292, gap, children }: TicketProps) {
  useHotkeys('escape', onClose, SCREEN_KEYS)
  return (
    <Popover
      open
      anchorEl={anchor}
      onClose={onClose}
      anchorOrigin={
        side === 'beside' ? { vertical: 'top', horizontal: 'left' } : { vertical: 'bottom', horizontal: side }
      }
      transformOrigin={{ vertical: 'top', horizontal: side === 'beside' ? 'right' : side }}
      slotProps={{
        paper: {
          'aria-label': label,
          role: 'dialog',
          sx: { p: 3, width, maxHeight: 'calc(100% - 64px)', ...(gap !== undefined && { display: 'grid', gap }) },
        },
      }}
      onPointerDown={(e) => e.stopPropagation()}
      onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
    >
      {children}
    </Popover>
  )
}
