import Box from '@mui/material/Box'
import type { Role } from '@/core/model/region'
import { roleMark } from './roleMarks'
import { fonts, textSize } from './theme'

/** A role's letter on its colour. */
export function RoleBadge({ role }: { role: Role }) {
  const { colour, letter } = roleMark(role)
  return (
    <Box
      component="span"
      aria-hidden
      sx={{
        display: 'inline-grid',
        placeItems: 'center',
        width: 18,
        height: 16,
        flex: 'none',
        borderRadius: '2px',
        bgcolor: colour,
        color: '#fff',
        fontFamily: fonts.numbers,
        fontSize: textSize.small,
        fontWeight: 700,
      }}
    >
      {letter}
    </Box>
  )
}
