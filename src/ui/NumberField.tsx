'use client'

import Box from '@mui/material/Box'
import { useState, type KeyboardEvent } from 'react'
import { fonts, palette } from '@/ui/theme'

export interface NumberFieldProps {
  label: string
  value: number
  unit: string
  least: number
  most: number
  step: number
  decimals?: number
  disabled?: boolean
  /** Changes made with the arrow keys in one visit share a gesture, so that they are one step of undo. */
  onSet: (value: number, gesture: string) => void
}

/** A labelled number that can be typed or stepped with ↑ and ↓ (Shift: ten steps); taken at Enter or when it is left, put back by Escape. */
export function NumberField({ label, value, unit, least, most, step, decimals = 0, disabled = false, onSet }: NumberFieldProps) {
  const [draft, setDraft] = useState<string | null>(null)
  const [visit, setVisit] = useState('')
  const set = (to: number) => onSet(Math.min(most, Math.max(least, to)), visit)
  const commit = () => {
    const typed = Number(draft?.replace(',', '.'))
    if (draft !== null && draft.trim() !== '' && Number.isFinite(typed)) set(typed)
    setDraft(null)
  }
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    // Escape puts back what was typed; where nothing was, it is for whatever the field is in.
    if (event.key === 'Escape' && draft === null) return
    event.stopPropagation()
    if (event.key === 'Enter') commit()
    else if (event.key === 'Escape') setDraft(null)
    else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      event.preventDefault()
      setDraft(null)
      set(value + (event.key === 'ArrowUp' ? 1 : -1) * step * (event.shiftKey ? 10 : 1))
    }
  }
  return (
    <Box component="label" sx={{ display: 'contents', fontSize: 13 }}>
      <Box component="span" sx={{ color: palette.inkSoft, fontSize: 12.5 }}>
        {label}
      </Box>
      <Box component="span" sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Box
          component="input"
          inputMode="decimal"
          aria-label={label}
          disabled={disabled}
          value={draft ?? value.toFixed(decimals)}
          onChange={(e) => setDraft(e.target.value)}
          onFocus={(e) => {
            e.target.select()
            setVisit(crypto.randomUUID())
          }}
          onBlur={commit}
          onKeyDown={onKeyDown}
          sx={{ width: '8ch', px: 1.5, py: '3px', font: 'inherit', fontFamily: fonts.numbers, fontSize: 12.5, textAlign: 'right', color: palette.ink, bgcolor: '#fff', border: `1px solid ${palette.line}`, borderRadius: '3px', '&:focus': { borderColor: palette.leaf, outline: `1px solid ${palette.leaf}` }, '&:disabled': { opacity: 0.5 } }}
        />
        <Box component="span" sx={{ color: palette.inkSoft, fontSize: 12 }}>
          {unit}
        </Box>
      </Box>
    </Box>
  )
}
