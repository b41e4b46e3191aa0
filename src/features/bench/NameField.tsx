'use client'

import Box from '@mui/material/Box'
import { useRef } from 'react'
import { title } from '@/core/model/record'
import { palette } from '@/ui/theme'
import { useBenchContext, useEdit } from './benchContext'
import { setName } from './edits'

/** The highlight's name, typed in place; an empty one is put back. */
export function NameField() {
  const { session } = useBenchContext()
  const { name } = useEdit().highlight
  const gesture = useRef('')
  return (
    <Box
      component="input"
      aria-label="Name of the highlight"
      key={name}
      defaultValue={name}
      onFocus={() => (gesture.current = crypto.randomUUID())}
      onBlur={(e) => {
        const typed = title.safeParse(e.target.value)
        if (typed.success && typed.data !== name) setName(session, typed.data, gesture.current)
        else e.target.value = name
      }}
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Escape') e.currentTarget.value = name
        if (e.key === 'Enter' || e.key === 'Escape') e.currentTarget.blur()
      }}
      sx={{ font: 'inherit', fontWeight: 700, fontSize: 14, color: palette.ink, bgcolor: 'transparent', border: '1px solid transparent', borderRadius: '4px', px: 1.5, py: '2px', width: 'clamp(120px, 24vw, 340px)', textOverflow: 'ellipsis', '&:hover': { borderColor: palette.line }, '&:focus': { borderColor: palette.leaf, bgcolor: '#fff', outline: 'none' } }}
    />
  )
}
