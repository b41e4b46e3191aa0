'use client'

import SwapVertIcon from '@mui/icons-material/SwapVert'
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import Tooltip from '@mui/material/Tooltip'
import { iconSize, palette } from '@/ui/theme'
import { useGrowing } from '@/ui/useGrowing'
import { swapBands } from '@/edit/layouts'
import { useBenchContext, useHighlight, useLayout, useView } from '../benchContext'
import { MarkList } from '../marks/MarkList'
import { PaneFrame } from '../PaneFrame'
import { WordsMenu } from '../words/WordsMenu'
import { LayoutMenu } from './LayoutMenu'
import { PanelList } from './PanelList'
import { ShapeChips } from './ShapeChips'
import { ShapeView } from './ShapeView'
import { wording } from './wording'

/** What you get: every chosen shape, live, side by side. */
export function ShapesPane() {
  const { session } = useBenchContext()
  const { shapes } = useHighlight()
  const layout = useLayout()
  const alone = useView((v) => v.alone)
  const [first, ...further] = shapes.some((s) => s.id === alone?.shapeId)
    ? shapes.filter((s) => s.id === alone?.shapeId)
    : shapes
  const others = further.slice(0, useGrowing(further.length, 2))
  return (
    <PaneFrame
      pane="shapes"
      digit="3"
      title={wording.shapes}
      tools={
        <>
          <WordsMenu />
          <LayoutMenu />
          <Tooltip title={wording.swapBands}>
            <IconButton
              size="small"
              aria-label={wording.swapBands}
              onClick={() => swapBands(session, { layoutId: layout.id })}
            >
              <SwapVertIcon sx={{ fontSize: iconSize.medium }} />
            </IconButton>
          </Tooltip>
        </>
      }
    >
      <ShapeChips />
      <Box sx={{ flex: 1, minHeight: 0, overflowY: 'auto' }}>
        <Box
          sx={{
            bgcolor: palette.mat,
            p: 3,
            display: 'grid',
            gap: 3,
            alignItems: 'start',
            gridTemplateColumns: further.length > 0 ? '3fr 2fr' : 'minmax(0, 1fr)',
            justifyItems: 'center',
          }}
        >
          {first && <ShapeView key={first.id} shape={first} />}
          {further.length > 0 && (
            <Box sx={{ display: 'grid', gap: 3, width: '100%' }}>
              {others.map((shape) => (
                <ShapeView key={shape.id} shape={shape} />
              ))}
            </Box>
          )}
        </Box>
        <PanelList />
        <MarkList />
      </Box>
    </PaneFrame>
  )
}
