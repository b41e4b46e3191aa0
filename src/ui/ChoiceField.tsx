'use client'

import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import type { ReactNode } from 'react'

/** One of some, from a list that opens: `options` has the words for each. */
export function ChoiceField<V extends string>({
  label,
  value,
  options,
  onChange,
  help,
}: {
  label: string
  value: V
  options: Record<V, string>
  onChange: (value: V) => void
  help?: ReactNode
}) {
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      helperText={help}
      onChange={(e) => onChange(e.target.value as V)}
    >
      {(Object.entries(options) as [V, string][]).map(([option, words]) => (
        <MenuItem key={option} value={option}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  )
}
