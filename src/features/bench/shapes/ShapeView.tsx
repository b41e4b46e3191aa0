'use client'

import Box from '@mui/material/Box'
import { useMemo, useRef } from 'react'
import { placePanels } from '@/core/compose/compose'
import { arrangementFor } from '@/core/layout/arrangementFor'
import { solve } from '@/core/layout/solve'
import type { Shape } from '@/core/model/shape'
import type { PreviewTarget } from '@/media/workers/preview.protocol'
import { formatSize } from '@/ui/format'
import { fonts } from '@/ui/theme'
import { useBenchContext, useEdit, useParts, useView } from '../benchContext'
import { usePreviewCanvas } from '@/ui/usePreviewCanvas'
import { PanelBox } from './PanelBox'
import { SeamHandle } from './SeamHandle'

/** The result in one shape, live; its panels and seams can be grabbed. */
export function ShapeView({ shape }: { shape: Shape }) {
  const { player } = useBenchContext()
  const edit = useEdit()
  const marks = useView((v) => v.marks)
  const host = useRef<HTMLDivElement>(null)
  const { id, width, height } = shape
  const target = useMemo<PreviewTarget>(() => ({ kind: 'shape', shape: { id, width, height } }), [id, width, height])
  usePreviewCanvas(player, host, target, `Result, ${id}`)
  const { passage, layout } = useParts()
  const placed = useMemo(() => placePanels(edit, shape, passage), [edit, shape, passage])
  const { seams } = useMemo(() => solve(arrangementFor(layout, shape), shape), [layout, shape])
  return (
    <Box component="figure" sx={{ m: 0, width: '100%', maxWidth: `calc(52dvh * ${width / height})` }}>
      <Box ref={host} data-testid={`shape-${id}`} sx={{ position: 'relative', width: '100%', aspectRatio: `${width} / ${height}`, touchAction: 'none' }}>
        {placed.map((panel) => (
          <PanelBox key={panel.panel.id} placed={panel} shape={shape} marks={marks} />
        ))}
        {marks && seams.map((seam) => <SeamHandle key={[...seam.path, seam.index].join('.')} seam={seam} shape={shape} />)}
      </Box>
      <Box component="figcaption" sx={{ color: '#C9CCC6', fontFamily: fonts.numbers, fontSize: 11, mt: 1, whiteSpace: 'nowrap' }}>
        {id} {formatSize(shape)}
      </Box>
    </Box>
  )
}
