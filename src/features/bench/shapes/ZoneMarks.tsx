'use client'

import Box from '@mui/material/Box'
import type { Shape } from '@/core/model/shape'
import { useView } from '../benchContext'
import { zonesOver } from './zones'
import { textSize } from '@/ui/theme'
import { wording } from './wording'

/** What the chosen outlet lays over a shape, hatched. */
export function ZoneMarks({ shape }: { shape: Shape }) {
  const outlet = useView((v) => v.outlet)
  return zonesOver(outlet, shape).map(({ name, rect }) => (
    <Box
      key={name}
      aria-label={wording.coveredBy(name, outlet?.name)}
      role="note"
      sx={{
        position: 'absolute',
        pointerEvents: 'none',
        overflow: 'hidden',
        left: `${100 * rect.x}%`,
        top: `${100 * rect.y}%`,
        width: `${100 * rect.width}%`,
        height: `${100 * rect.height}%`,
        border: '1px solid rgba(255,255,255,0.8)',
        background: 'repeating-linear-gradient(135deg, rgba(179,64,44,0.42) 0 4px, rgba(32,38,31,0.42) 4px 8px)',
        color: '#fff',
        fontSize: textSize.tiny,
        lineHeight: 1.2,
        p: '2px 3px',
        textShadow: '0 0 3px #000',
      }}
    >
      {name}
    </Box>
  ))
}
