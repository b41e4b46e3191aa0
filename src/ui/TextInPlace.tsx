'use client'

import Box from '@mui/material/Box'
import { useRef, useState, type KeyboardEvent } from 'react'
import { palette } from './theme'

interface Props {
  label: string
  value: string
  placeholder?: string
  strong?: boolean
  /** Whether it is there to be typed into at once, with all of it marked. */
  autoFocus?: boolean
  onSet: (value: string) => void
  /** Told when it is left, whatever came of it. */
  onLeft?: () => void
}

/** Words that are edited where they stand: taken at Enter or when they are left, put back by Escape. */
export function TextInPlace({ label, value, placeholder, strong = false, autoFocus = false, onSet, onLeft }: Props) {
  const [draft, setDraft] = useState<string | null>(null)
  const left = useRef(false)
  const commit = () => {
    if (!left.current && draft !== null && draft !== value) onSet(draft)
    left.current = false
    setDraft(null)
    onLeft?.()
  }
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    event.stopPropagation()
    if (event.key === 'Enter') event.currentTarget.blur()
    else if (event.key === 'Escape') {
      left.current = true
      event.currentTarget.blur()
    }
  }
  return (
    <Box
      component="input"
      aria-label={label}
      value={draft ?? value}
      placeholder={placeholder}
      maxLength={200}
      onChange={(e) => setDraft(e.target.value)}
      autoFocus={autoFocus}
      onFocus={(e) => autoFocus && e.currentTarget.select()}
      onBlur={commit}
      onKeyDown={onKeyDown}
      sx={{
        width: '100%',
        boxSizing: 'border-box',
        mx: '-5px',
        px: '4px',
        py: '1px',
        font: 'inherit',
        fontSize: strong ? 14 : 12.5,
        fontWeight: strong ? 700 : 400,
        color: palette.ink,
        bgcolor: 'transparent',
        border: '1px solid transparent',
        borderRadius: '3px',
        textOverflow: 'ellipsis',
        '&:hover': { borderColor: palette.line },
        '&:focus': { bgcolor: '#fff', borderColor: palette.leaf },
      }}
    />
  )
}
