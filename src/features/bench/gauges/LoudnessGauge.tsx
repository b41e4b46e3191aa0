'use client'

import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { Ticket } from '@/ui/Ticket'
import { fonts, palette, textSize } from '@/ui/theme'
import { useView } from '../benchContext'
import { loudnessFigure } from '@/shared/findingWords'
import { wording } from './wording'

/** Charts are a large library that a Bench need not hold until one is asked for. */
const LoudnessOverTime = dynamic(() => import('./LoudnessOverTime'), { ssr: false })

/** How loud it is; pressed, how loud over time. */
export function LoudnessGauge() {
  const loudness = useView((v) => v.looked?.loudness ?? null)
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  if (!loudness) return null
  return (
    <>
      <ButtonBase
        aria-haspopup="dialog"
        aria-label={wording.loudness(loudnessFigure(loudness.lufs))}
        onClick={(e) => setAnchor(e.currentTarget)}
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
          '&:hover': { bgcolor: palette.leafTint },
          '&:focus-visible': { outline: `2px solid ${palette.leaf}` },
        }}
      >
        <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.note, fontWeight: 700, color: palette.leaf }}>
          {loudnessFigure(loudness.lufs)}
        </Box>
        <Box sx={{ fontSize: textSize.small, color: palette.inkSoft }}>{wording.loudnessLowercase}</Box>
      </ButtonBase>
      {anchor && (
        <Ticket
          label={wording.loudnessCapital}
          anchor={anchor}
          onClose={() => setAnchor(null)}
          side="center"
          width={600}
          gap={2}
        >
          {/* As high as it will be: a ticket that grows would leave the screen. */}
          <Box sx={{ minHeight: 276, display: 'grid', gap: 2, alignContent: 'start' }}>
            <LoudnessOverTime />
          </Box>
        </Ticket>
      )}
    </>
  )
}
