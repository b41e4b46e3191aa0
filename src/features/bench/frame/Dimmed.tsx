'use client'

import Box from '@mui/material/Box'
import type { Region } from '@/core/model/region'
import { useView } from '../benchContext'

/** Darkens all but the region that is being dragged. */
export function Dimmed({ regions }: { regions: readonly Region[] }) {
  const moving = useView((v) => v.moving)
  const region = regions.find((r) => r.id === moving)
  if (!region) return null
  const { x, y, width, height } = region.bounds
  return (
    <Box aria-hidden sx={{ position: 'absolute', inset: 0, overflow: 'hidden', pointerEvents: 'none' }}>
      <Box
        style={{ left: `${100 * x}%`, top: `${100 * y}%`, width: `${100 * width}%`, height: `${100 * height}%` }}
        sx={{ position: 'absolute', boxShadow: '0 0 0 4000px rgba(20, 22, 20, 0.5)' }}
      />
    </Box>
  )
}
