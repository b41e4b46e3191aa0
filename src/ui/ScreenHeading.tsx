import Box from '@mui/material/Box'
import { palette, textSize } from './theme'

/** A screen's name, and in a few words what is there. */
export function ScreenHeading({ name, purpose }: { name: string; purpose: string }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'baseline', flexWrap: 'wrap', columnGap: 3 }}>
      <Box component="h1" sx={{ m: 0, fontSize: textSize.title, fontWeight: 700 }}>
        {name}
      </Box>
      <Box sx={{ fontSize: textSize.note, color: palette.inkSoft }}>{purpose}</Box>
    </Box>
  )
}

/** A screen's name for those who hear the page; the others see it elsewhere. */
export function HiddenHeading({ name }: { name: string }) {
  return (
    <Box
      component="h1"
      sx={{ position: 'absolute', width: '1px', height: '1px', m: '-1px', overflow: 'hidden', clipPath: 'inset(50%)' }}
    >
      {name}
    </Box>
  )
}
