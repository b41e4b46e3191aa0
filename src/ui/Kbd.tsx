import Box from '@mui/material/Box'
import { fonts, palette, textSize } from './theme'

/** A key as it is shown beside what it does; its name is told elsewhere. */
export function Kbd({ children }: { children: string }) {
  return (
    <Box
      component="kbd"
      aria-hidden
      sx={{
        fontFamily: fonts.numbers,
        fontSize: textSize.small,
        fontWeight: 400,
        color: palette.inkSoft,
        border: 1,
        borderColor: 'divider',
        borderRadius: '3px',
        bgcolor: 'background.paper',
        px: 1,
      }}
    >
      {children}
    </Box>
  )
}
