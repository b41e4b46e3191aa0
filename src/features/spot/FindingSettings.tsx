'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Slider from '@mui/material/Slider'
import { useState } from 'react'
import type { Weights } from '@/core/model/spotting'
import { NumberField } from '@/ui/NumberField'
import { SecondsField } from '@/ui/SecondsField'
import { palette, textSize } from '@/ui/theme'
import { Ticket } from '@/ui/Ticket'
import { setFinding } from '@/edit/moments'
import { useSpotContext, useSpotting } from './spotContext'
import { wording } from './wording'

const SIGNS: readonly { key: keyof Weights; name: string; what: string }[] = [
  { key: 'loudness', name: wording.loudness, what: wording.louderThanTheMinuteAround },
  { key: 'motion', name: wording.motion, what: wording.moreChangeInThePicture },
  { key: 'speech', name: wording.speech, what: wording.moreTalkThanAroundIt },
]

/**
 * How moments are found: what each sign counts, how long a moment may be, how many are proposed, how late a mark is.
 */
export function FindingSettings() {
  const { session } = useSpotContext()
  const { weights, mostMicros, reactionMicros, proposals } = useSpotting()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  return (
    <>
      <Button aria-haspopup="dialog" onClick={(e) => setAnchor(e.currentTarget)}>
        {wording.howTheyAreFound}
      </Button>
      {anchor && (
        <Ticket label={wording.howMomentsAreFound} anchor={anchor} onClose={() => setAnchor(null)} width={330} gap={2}>
          {SIGNS.map(({ key, name, what }) => (
            <Box
              key={key}
              sx={{ display: 'grid', gridTemplateColumns: '92px 1fr', columnGap: 3, alignItems: 'center' }}
            >
              <Box sx={{ fontSize: textSize.body, fontWeight: 600 }}>{name}</Box>
              <Slider
                size="small"
                aria-label={wording.weightOf(name.toLowerCase())}
                min={0}
                max={1}
                step={0.05}
                value={weights[key]}
                onChange={(_, v) =>
                  setFinding(session, { part: { weights: { ...weights, [key]: v as number } } }, wording.weight(key))
                }
                sx={{ color: palette.leaf }}
              />
              <Box sx={{ gridColumn: '1 / -1', fontSize: textSize.note, color: palette.inkSoft, mt: -1 }}>{what}</Box>
            </Box>
          ))}
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: '1fr auto',
              rowGap: 1.5,
              alignItems: 'center',
              pt: 2,
              borderTop: 1,
              borderColor: 'divider',
            }}
          >
            <SecondsField
              label={wording.noMomentLongerThan}
              least={2}
              most={600}
              step={5}
              value={mostMicros}
              onSet={(micros, gesture) => setFinding(session, { part: { mostMicros: micros } }, gesture)}
            />
            <NumberField
              label={wording.proposeAtMost}
              unit=""
              least={1}
              most={100}
              step={1}
              value={proposals}
              onSet={(n, gesture) => setFinding(session, { part: { proposals: Math.round(n) } }, gesture)}
            />
            <SecondsField
              label={wording.mMarksWhatHappenedBefore}
              least={0}
              most={30}
              step={0.5}
              decimals={1}
              value={reactionMicros}
              onSet={(micros, gesture) => setFinding(session, { part: { reactionMicros: micros } }, gesture)}
            />
          </Box>
        </Ticket>
      )}
    </>
  )
}
