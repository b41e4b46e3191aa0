'use client'

import Box from '@mui/material/Box'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { Ticket } from '@/ui/Ticket'
import { useView } from '../benchContext'
import { loudnessFigure } from '@/shared/findingWords'
import { GaugeButton } from './GaugeButton'
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
      <GaugeButton figure={loudnessFigure(loudness.lufs)} words={wording.loudnessLowercase} onOpen={setAnchor} />
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
