import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import Typography from '@mui/material/Typography'
import type { ReactNode } from 'react'
import { palette, textSize } from './theme'

/** A line of a list of things to choose from: a box with its name, and what is to be known of it. */
export function CheckRow({
  name,
  note,
  checked,
  disabled = false,
  onChange,
}: {
  name: string
  note: ReactNode
  checked: boolean
  disabled?: boolean
  onChange: () => void
}) {
  return (
    <Box role="listitem" sx={{ display: 'flex', alignItems: 'center', borderTop: 1, borderColor: 'divider' }}>
      <FormControlLabel
        sx={{
          flex: 1,
          minWidth: 0,
          '& .MuiFormControlLabel-label': {
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            whiteSpace: 'nowrap',
            fontSize: textSize.body,
          },
        }}
        control={<Checkbox size="small" disabled={disabled} checked={checked} onChange={onChange} />}
        label={name}
      />
      <Typography sx={{ fontSize: textSize.note, color: palette.inkSoft, flex: 'none' }}>{note}</Typography>
    </Box>
  )
}
