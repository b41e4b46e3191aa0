import Box from '@mui/material/Box'
import { textSize } from './theme'

/** A name in one line, cut off where it is too long; all of it is told when it is pointed at. */
export function OneLine({ children }: { children: string }) {
  return (
    <Box
      title={children}
      sx={{
        fontSize: textSize.body,
        fontWeight: 600,
        overflow: 'hidden',
        textOverflow: 'ellipsis',
        whiteSpace: 'nowrap',
      }}
    >
      {children}
    </Box>
  )
}
