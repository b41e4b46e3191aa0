'use client'

import Box from '@mui/material/Box'
import { useId, useState, type KeyboardEvent } from 'react'
import { parseTypedNumber, parseTypedSeconds } from '@/core/time/typedTime'
import { fonts, palette, textSize } from '@/ui/theme'

export interface NumberFieldProps {
  label: string
  value: number
  unit: string
  least: number
  most: number
  step: number
  /**
   * Of fields in seconds: how long a frame is, for times typed in frames; else the step, where that is shorter than a
   * tenth.
   */
  frameSeconds?: number
  decimals?: number
  disabled?: boolean
  /** Changes made with the arrow keys in one visit share a gesture, so that they are one step of undo. */
  onSet: (value: number, gesture: string) => void
}

/** A step below this is a frame. */
const LONGEST_FRAME = 0.1

/**
 * A labelled number that can be typed or stepped with ↑ and ↓ (Shift: ten steps); taken at Enter or when it is left,
 * put back by Escape. Seconds can be typed as a time: 12:00, 1:02:03.5, 90s, 1200f. What is not understood is
 * refused, and said.
 */
export function NumberField({
  label,
  value,
  unit,
  least,
  most,
  step,
  frameSeconds,
  decimals = 0,
  disabled = false,
  onSet,
}: NumberFieldProps) {
  const [draft, setDraft] = useState<string | null>(null)
  const [visit, setVisit] = useState('')
  const [refused, setRefused] = useState<string | null>(null)
  const messageId = useId()
  const set = (to: number) => onSet(Math.min(most, Math.max(least, to)), visit)
  const read = (text: string) =>
    unit === 's'
      ? parseTypedSeconds(text, frameSeconds ?? (step < LONGEST_FRAME ? step : null))
      : parseTypedNumber(text)
  const shown = (n: number) => `${n.toFixed(decimals)} ${unit}`.trim()
  const commit = () => {
    const typed = draft === null || draft.trim() === '' ? null : read(draft)
    if (draft !== null && draft.trim() !== '' && typed === null)
      setRefused(
        unit === 's'
          ? `“${draft.trim()}” is not a time. Type 90, 1:30 or 1:02:03.5.`
          : `“${draft.trim()}” is not a number.`,
      )
    else if (typed !== null && (typed < least - step || typed > most + step))
      setRefused(`From ${shown(least)} to ${shown(most)}.`)
    else setRefused(null)
    if (typed !== null) set(typed)
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
    <Box component="label" sx={{ display: 'contents', fontSize: textSize.body }}>
      <Box component="span" sx={{ color: palette.inkSoft, fontSize: textSize.note }}>
        {label}
      </Box>
      <Box component="span" sx={{ position: 'relative', display: 'flex', alignItems: 'center', gap: 1 }}>
        <Box
          component="input"
          inputMode="decimal"
          aria-label={label}
          disabled={disabled}
          value={draft ?? value.toFixed(decimals)}
          aria-invalid={refused !== null}
          aria-describedby={refused === null ? undefined : messageId}
          onChange={(e) => {
            setDraft(e.target.value)
            setRefused(null)
          }}
          onFocus={(e) => {
            e.target.select()
            setVisit(crypto.randomUUID())
          }}
          onBlur={commit}
          onKeyDown={onKeyDown}
          sx={{
            width: '8ch',
            px: 1.5,
            py: '3px',
            font: 'inherit',
            fontFamily: fonts.numbers,
            fontSize: textSize.note,
            textAlign: 'right',
            color: palette.ink,
            bgcolor: '#fff',
            border: `1px solid ${refused === null ? palette.line : palette.haw}`,
            borderRadius: '3px',
            '&:focus': { borderColor: palette.leaf, outline: `1px solid ${palette.leaf}` },
            '&:disabled': { opacity: 0.5 },
          }}
        />
        <Box component="span" sx={{ color: palette.inkSoft, fontSize: textSize.note }}>
          {unit}
        </Box>
        {refused !== null && (
          <Box
            component="span"
            id={messageId}
            role="alert"
            sx={{
              position: 'absolute',
              right: 0,
              top: '100%',
              zIndex: 2,
              mt: '2px',
              px: 1.5,
              py: '2px',
              borderRadius: '3px',
              bgcolor: palette.haw,
              color: '#fff',
              fontSize: textSize.note,
              whiteSpace: 'nowrap',
            }}
          >
            {refused}
          </Box>
        )}
      </Box>
    </Box>
  )
}
