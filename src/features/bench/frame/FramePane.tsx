'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useMemo, useRef } from 'react'
import { placePanels } from '@/core/compose/compose'
import { snapEdges } from '@/core/detect/regions/snap'
import { rectBetween } from '@/core/geometry/rect'
import type { RegionId } from '@/core/model/ids'
import { palette } from '@/ui/theme'
import { useBenchContext, useEdit, useParts, useView } from '../benchContext'
import { PaneFrame } from '../PaneFrame'
import { useDrag } from '@/ui/useDrag'
import { usePreviewCanvas } from '@/ui/usePreviewCanvas'
import type { PreviewTarget } from '@/media/workers/preview.protocol'
import { acceptProposals, drawRegion } from '../edits'
import { CropOutline } from './CropOutline'
import { boundsOf, FindRegions, openProposals } from './FindRegions'
import { GhostBox } from './GhostBox'
import { RegionBox, SNAP_REACH } from './RegionBox'
import { RegionList } from './RegionList'
import { SetupMenu } from './SetupMenu'
import { useLook, useSnapLines } from './useLook'
import { useRecognition } from './useRecognition'

/** A drag over the bare picture draws a region once it is this large, px of the frame. */
const LEAST_DRAWN = 16

const FRAME_TARGET: PreviewTarget = { kind: 'frame' }

/** Where: the recording's picture with its regions. */
export function FramePane() {
  useRecognition()
  const { view } = useBenchContext()
  const marks = useView((v) => v.marks)
  return (
    <PaneFrame
      pane="frame"
      digit="2"
      title="Frame"
      tools={
        <>
          <SetupMenu />
          <Button aria-pressed={marks} onClick={() => view.setState({ marks: !marks })}>
            {marks ? 'Hide outlines' : 'Show outlines'}
          </Button>
        </>
      }
    >
      <Box sx={{ overflowY: 'auto', flex: 1, minHeight: 0 }}>
        <Picture />
        <RegionList />
        <FindRegions />
      </Box>
    </PaneFrame>
  )
}

function Picture() {
  const { player, session, view } = useBenchContext()
  const edit = useEdit()
  const marks = useView((v) => v.marks)
  const host = useRef<HTMLDivElement>(null)
  usePreviewCanvas(player, host, FRAME_TARGET, 'The recording’s picture')
  const { passage, recording, setup } = useParts()
  const { width, height } = recording.video
  const snapLines = useSnapLines()
  const drawing = useDrag((event) => {
    view.setState({ selection: null })
    const box = event.currentTarget.getBoundingClientRect()
    const perPixel = width / box.width
    const from = { x: (event.clientX - box.left) * perPixel, y: (event.clientY - box.top) * perPixel }
    const id = crypto.randomUUID() as RegionId
    return ({ dx, dy, ctrlKey, gesture }) => {
      const drawn = rectBetween(from, { x: from.x + dx * perPixel, y: from.y + dy * perPixel }, recording.video)
      if (drawn.width < LEAST_DRAWN || drawn.height < LEAST_DRAWN) return
      const reach = Math.round(SNAP_REACH * perPixel)
      drawRegion(session, setup.id, recording.video, id, snapLines && !ctrlKey ? snapEdges(snapEdges(drawn, 'nw', snapLines, reach), 'se', snapLines, reach) : drawn, gesture)
      view.setState({ selection: { kind: 'region', id } })
    }
  })
  const look = useLook()
  const ghosts = look?.kind === 'seen' ? openProposals(look.look.proposals, setup.regions, recording.video) : []
  const shape = edit.highlight.shapes[0]
  const placed = useMemo(() => (shape ? placePanels(edit, shape, passage) : []), [edit, shape, passage])
  // The smallest lies on top, so that a face inside the game's region can be grabbed.
  const regions = setup.regions.filter((r) => !r.hidden).sort((a, b) => b.bounds.width * b.bounds.height - a.bounds.width * a.bounds.height)
  return (
    <Box sx={{ bgcolor: palette.mat, p: 3, display: 'grid', justifyItems: 'center' }} onPointerDown={() => view.setState({ selection: null })}>
      <Box ref={host} data-testid="frame-picture" onPointerDown={drawing} sx={{ position: 'relative', cursor: 'crosshair', width: '100%', maxWidth: `calc(52dvh * ${width / height})`, aspectRatio: `${width} / ${height}`, touchAction: 'none' }}>
        {marks && (
          <>
            {placed.map(({ panel, picture }) => picture && <CropOutline key={panel.id} crop={picture.crop} frame={recording.video} role={panel.role} />)}
            {ghosts.map((p, n) => (
              <GhostBox key={n} proposal={p} frame={recording.video} onAccept={() => acceptProposals(session, setup.id, [{ role: p.role, bounds: boundsOf(p, recording.video) }])} />
            ))}
            {regions.map((region) => (
              <RegionBox key={region.id} region={region} frame={recording.video} />
            ))}
          </>
        )}
      </Box>
    </Box>
  )
}
