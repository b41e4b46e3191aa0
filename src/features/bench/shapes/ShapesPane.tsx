'use client'

import SwapVertIcon from '@mui/icons-material/SwapVert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { STANDARD_SHAPES } from '@/core/model/shape'
import { palette } from '@/ui/theme'
import { useBenchContext, useHighlight, useLayout } from '../benchContext'
import { swapBands, toggleShape } from '../edits'
import { PaneFrame } from '../PaneFrame'
import { PanelList } from './PanelList'
import { ShapeView } from './ShapeView'

/** What you get: every chosen shape, live, side by side. */
export function ShapesPane() {
  const { session } = useBenchContext()
  const { shapes } = useHighlight()
  const layout = useLayout()
  const [first, ...others] = shapes
  return (
    <PaneFrame
      pane="shapes"
      digit="3"
      title="Shapes"
      tools={
        <Button startIcon={<SwapVertIcon />} onClick={() => swapBands(session, layout.id)}>
          Swap bands
        </Button>
      }
    >
      <Box sx={{ display: 'flex', gap: 1, px: 3, py: 1.5, borderBottom: 1, borderColor: 'divider', flexWrap: 'wrap' }} role="group" aria-label="Shapes that this highlight goes out in">
        {STANDARD_SHAPES.map((shape) => {
          const chosen = shapes.some((s) => s.id === shape.id)
          return (
            <Button key={shape.id} aria-pressed={chosen} disabled={chosen && shapes.length === 1} onClick={() => toggleShape(session, shape)} sx={{ px: 2, ...(chosen && { '&&': { bgcolor: palette.leafTint, borderColor: palette.leaf, color: palette.ink } }) }}>
              {shape.id}
            </Button>
          )
        })}
      </Box>
      <Box sx={{ flex: 1, minHeight: 0, overflowY: 'auto' }}>
        <Box sx={{ bgcolor: palette.mat, p: 3, display: 'grid', gap: 3, alignItems: 'start', gridTemplateColumns: others.length > 0 ? '3fr 2fr' : 'minmax(0, 1fr)', justifyItems: 'center' }}>
          {first && <ShapeView key={first.id} shape={first} />}
          {others.length > 0 && (
            <Box sx={{ display: 'grid', gap: 3, width: '100%' }}>
              {others.map((shape) => (
                <ShapeView key={shape.id} shape={shape} />
              ))}
            </Box>
          )}
        </Box>
        <PanelList />
      </Box>
    </PaneFrame>
  )
}
