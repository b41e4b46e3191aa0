'use client'

import Box from '@mui/material/Box'
import { useRef } from 'react'
import { palette, textSize } from '@/ui/theme'

interface ColourFieldProps {
  label: string
  value: string
  /** Shows the colour alone; its label is heard only. */
  bare?: boolean
  /** Colours tried in one visit share a gesture, so that they are one step of undo. */
  onSet: (value: string, gesture: string) => void
}

/** A labelled colour, chosen by the browser's own means. */
export function ColourField({ label, value, bare = false, onSet }: ColourFieldProps) {
  const gesture = useRef<string>(crypto.randomUUID())
  const field = (
    <Box
      component="input"
      type="color"
      aria-label={label}
      value={value}
      onChange={(e) => onSet(e.target.value, gesture.current)}
      onBlur={() => (gesture.current = crypto.randomUUID())}
      sx={{
        width: bare ? 28 : 40,
        height: bare ? 24 : 26,
        flex: 'none',
        p: 0,
        border: 1,
        borderColor: 'divider',
        bgcolor: 'transparent',
      }}
    />
  )
  if (bare) return field
  return (
    <Box
      component="label"
      sx={{
        display: 'flex',
        alignItems: 'center',
        justifyContent: 'space-between',
        gap: 2,
        fontSize: textSize.note,
        color: palette.inkSoft,
      }}
    >
      {label}
      {field}
    </Box>
  )
}
