'use client'

import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import { fonts, palette, textSize } from '@/ui/theme'

/** A figure about the highlight with what it is below it; opens its ticket. */
export function GaugeButton({
  figure,
  words,
  colour = palette.leaf,
  isStale,
  onOpen,
}: {
  figure: string
  words: string
  colour?: string
  /** Of what is looked for anew after each edit: whether the figure is of the highlight as it was a moment ago. */
  isStale?: boolean
  onOpen: (button: HTMLElement) => void
}) {
  return (
    <ButtonBase
      aria-haspopup="dialog"
      data-stale={isStale}
      onClick={(e) => onOpen(e.currentTarget)}
      sx={{
        pl: 3,
        pr: 1,
        py: 1,
        borderLeft: 1,
        borderColor: 'divider',
        display: 'flex',
        flexDirection: 'column-reverse',
        alignItems: 'flex-start',
        textAlign: 'left',
        font: 'inherit',
        whiteSpace: 'nowrap',
        '&:hover': { bgcolor: palette.leafTint },
        '&:focus-visible': { outline: `2px solid ${palette.leaf}` },
      }}
    >
      {/* Read in this order, so that the button is named “found 3 notes”; seen the other way round. */}
      <Box sx={{ fontSize: textSize.small, color: palette.inkSoft }}>{words}</Box>
      <Box
        sx={{
          fontFamily: fonts.numbers,
          fontSize: textSize.note,
          fontWeight: isStale ? 400 : 700,
          color: isStale ? palette.inkSoft : colour,
        }}
      >
        {figure}
      </Box>
    </ButtonBase>
  )
}
