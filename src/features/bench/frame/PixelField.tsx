'use client'

import Box from '@mui/material/Box'
import { useState, type KeyboardEvent } from 'react'
import { fonts, palette } from '@/ui/theme'

/** A number of pixels that can be typed; taken at Enter or when it is left, put back by Escape. */
export function PixelField({
  label,
  value,
  most,
  onSet,
}: {
  label: string
  value: number
  most: number
  onSet: (value: number) => void
}) {
  const [draft, setDraft] = useState<string | null>(null)
  const commit = () => {
    const typed = Number(draft)
    if (draft !== null && draft.trim() !== '' && Number.isFinite(typed) && typed !== value)
      onSet(Math.min(Math.max(0, Math.round(typed)), most))
    setDraft(null)
  }
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    // With nothing typed, Escape is meant for what the field is in.
    if (event.key !== 'Escape' || draft !== null) event.stopPropagation()
    if (event.key === 'Enter') commit()
    else if (event.key === 'Escape') setDraft(null)
  }
  return (
    <Box
      component="input"
      inputMode="numeric"
      aria-label={label}
      value={draft ?? String(value)}
      onChange={(e) => setDraft(e.target.value)}
      onFocus={(e) => e.target.select()}
      onBlur={commit}
      onKeyDown={onKeyDown}
      sx={{
        width: '4ch',
        boxSizing: 'content-box',
        px: '2px',
        py: '1px',
        font: 'inherit',
        fontFamily: fonts.numbers,
        textAlign: 'right',
        color: palette.ink,
        bgcolor: 'transparent',
        border: '1px solid transparent',
        borderRadius: '3px',
        '&:hover': { borderColor: palette.line },
        '&:focus': { bgcolor: '#fff', borderColor: palette.leaf },
      }}
    />
  )
}
