'use client'

import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import { fonts, palette, textSize } from '@/ui/theme'

/** A figure about the highlight with what it is below it; opens its ticket. */
export function GaugeButton({
  figure,
  words,
  label,
  colour = palette.leaf,
  isStale,
  onOpen,
}: {
  figure: string
  words: string
  label: string
  colour?: string
  /** Of what is looked for anew after each edit: whether the figure is of the highlight as it was a moment ago. */
  isStale?: boolean
  onOpen: (button: HTMLElement) => void
}) {
  return (
    <ButtonBase
      aria-haspopup="dialog"
      aria-label={label}
      data-stale={isStale}
      onClick={(e) => onOpen(e.currentTarget)}
      sx={{
        pl: 3,
        pr: 1,
        py: 1,
        borderLeft: 1,
        borderColor: 'divider',
        display: 'block',
        textAlign: 'left',
        font: 'inherit',
        whiteSpace: 'nowrap',
        opacity: isStale ? 0.55 : 1,
        '&:hover': { bgcolor: palette.leafTint },
        '&:focus-visible': { outline: `2px solid ${palette.leaf}` },
      }}
    >
      <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.note, fontWeight: 700, color: colour }}>{figure}</Box>
      <Box sx={{ fontSize: textSize.small, color: palette.inkSoft }}>{words}</Box>
    </ButtonBase>
  )
}
