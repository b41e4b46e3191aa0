'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useEffect, useMemo, useRef, useState } from 'react'
import { placePanels } from '@/core/compose/placePanels'
import { snapEdges } from '@/core/detect/regions/snap'
import { rectBetween } from '@/core/geometry/rect'
import type { RegionId } from '@/core/model/ids'
import { palette } from '@/ui/theme'
import { toRecordingMicros } from '@/core/time/timeMap'
import { acceptProposals, asRegions, drawRegion } from '@/edit/regions'
import { regionsIn } from '@/core/compose/regionIn'
import { useBenchContext, useEdit, useParts, useTimeMap, useView } from '../benchContext'
import { PaneFrame } from '../PaneFrame'
import { useDrag } from '@/ui/useDrag'
import { usePreviewCanvas } from '@/ui/usePreviewCanvas'
import type { PreviewTarget } from '@/media/workers/preview.protocol'
import { CropOutline } from './CropOutline'
import { Dimmed } from './Dimmed'
import { FocusBox } from './FocusBox'
import { openProposals } from '@/shared/looks/acceptFound'
import { FindRegions } from './FindRegions'
import { GhostBox } from './GhostBox'
import { Magnifier } from './Magnifier'
import { PathHandle } from './PathHandle'
import { RegionBox, SNAP_REACH } from './RegionBox'
import { RegionList } from './RegionList'
import { Ribbons } from './Ribbons'
import { SetupMenu } from './SetupMenu'
import { SetupQuestion } from './SetupQuestion'
import { useLook, useSnapLines } from './useLook'
import { useRecognition } from './useRecognition'
import { wording } from './wording'

/** A drag over the bare picture draws a region once it is this large, px of the frame. */
const MIN_DRAWN = 16

const FRAME_TARGET: PreviewTarget = { kind: 'frame' }

/** Where: the recording's picture with its regions. */
export function FramePane() {
  const { view } = useBenchContext()
  const outlines = useView((v) => v.outlines)
  return (
    <PaneFrame
      pane="frame"
      digit="2"
      title={wording.frame}
      tools={
        <>
          <SetupMenu />
          <Button aria-pressed={outlines} onClick={() => view.setState({ outlines: !outlines })}>
            {outlines ? wording.hideOutlines : wording.showOutlines}
          </Button>
        </>
      }
    >
      <Box sx={{ overflowY: 'auto', flex: 1, minHeight: 0 }}>
        <Recognition />
        <SetupQuestion />
        <Picture />
        <RegionList />
        <FindRegions />
        <Ribbons />
      </Box>
    </PaneFrame>
  )
}

/** Draws nothing: what it follows changes with every move of a region, and the pane need not. */
function Recognition() {
  useRecognition()
  return null
}

function Picture() {
  const { player, session, view } = useBenchContext()
  const edit = useEdit()
  const outlines = useView((v) => v.outlines)
  const host = useRef<HTMLDivElement>(null)
  usePreviewCanvas(player, host, FRAME_TARGET, wording.theRecordingsPicture)
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
      if (drawn.width < MIN_DRAWN || drawn.height < MIN_DRAWN) return
      const reach = Math.round(SNAP_REACH * perPixel)
      drawRegion(
        session,
        {
          setupId: setup.id,
          frame: recording.video,
          id,
          pixels:
            snapLines && !ctrlKey ? snapEdges(snapEdges(drawn, 'nw', snapLines, reach), 'se', snapLines, reach) : drawn,
        },
        gesture,
      )
      view.setState({ selection: { kind: 'region', id } })
    }
  })
  const look = useLook()
  const ghosts = look?.kind === 'seen' && look.asked ? openProposals(look.look.proposals, setup, recording.video) : []
  const shape = edit.highlight.shapes[0]
  const at = usePathTime()
  const placed = useMemo(() => (shape ? placePanels(edit, shape, passage, at) : []), [edit, shape, passage, at])
  // The smallest lies on top, so that a face inside the game's region can be grabbed.
  const regions = regionsIn(passage, setup.regions)
    .filter((r) => !r.hidden)
    .sort((a, b) => b.bounds.width * b.bounds.height - a.bounds.width * a.bounds.height)
  return (
    <Box
      sx={{ bgcolor: palette.mat, p: 3, display: 'grid', justifyItems: 'center' }}
      onPointerDown={() => view.setState({ selection: null })}
    >
      <Box
        ref={host}
        data-testid="frame-picture"
        onPointerDown={drawing}
        sx={{
          position: 'relative',
          cursor: 'crosshair',
          width: '100%',
          maxWidth: `calc(52dvh * ${width / height})`,
          aspectRatio: `${width} / ${height}`,
          touchAction: 'none',
        }}
      >
        {outlines && (
          <>
            <Dimmed regions={regions} />
            {placed.map(
              ({ panel, picture }) =>
                picture && <CropOutline key={panel.id} crop={picture.crop} frame={recording.video} role={panel.role} />,
            )}
            {ghosts.map((p, n) => (
              <GhostBox
                key={n}
                proposal={p}
                frame={recording.video}
                onAccept={() =>
                  acceptProposals(session, {
                    setupId: setup.id,
                    proposals: asRegions([p], recording.video),
                  })
                }
              />
            ))}
            {regions.map((region) => (
              <RegionBox key={region.id} region={region} frame={recording.video} />
            ))}
            {regions.map(
              (region) =>
                region.focus &&
                !passage.cropPaths.some((p) => p.regionId === region.id) && (
                  <FocusBox key={region.id} region={region} focus={region.focus} frame={recording.video} />
                ),
            )}
            {regions.map((region) => {
              const path = passage.cropPaths.find((p) => p.regionId === region.id)
              return path && <PathHandle key={region.id} region={region} path={path} />
            })}
            <Magnifier frame={recording.video} />
          </>
        )}
      </Box>
    </Box>
  )
}

/** Crops that follow a path are outlined where they are at the playhead, to this many microseconds. */
const PATH_STEP_MICROS = 50_000

/**
 * The recording time at the playhead where crops of the passage move with it; otherwise its in point, and nothing is
 * drawn anew while it plays.
 */
function usePathTime(): number {
  const { player } = useBenchContext()
  const { passage } = useParts()
  const map = useTimeMap()
  const moves = passage.cropPaths.length > 0
  const [at, setAt] = useState(passage.inMicros)
  useEffect(() => {
    if (!moves) return
    return player.onPosition((t) => {
      const place = toRecordingMicros(map, Math.min(t, Math.max(0, map.lengthMicros - 1)))
      if (place?.passage.id === passage.id)
        setAt(Math.floor(place.recordingMicros / PATH_STEP_MICROS) * PATH_STEP_MICROS)
    })
  }, [player, map, passage.id, moves])
  return moves ? at : passage.inMicros
}
