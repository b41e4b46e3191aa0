'use client'

import LinkOffIcon from '@mui/icons-material/LinkOff'
import Box from '@mui/material/Box'
import { memo, useEffect, useRef } from 'react'
import type { PlacedPanel } from '@/core/compose/placeArrangement'
import { throughFrame } from '@/core/compose/panelCrop'
import { scaleRect } from '@/core/geometry/rect'
import { straightened } from '@/core/geometry/resize'
import { recordingOf } from '@/core/model/edit'
import type { Shape } from '@/core/model/shape'
import { heldKeys } from '@/ui/heldKeys'
import { roleMark } from '@/ui/roleMarks'
import { useDrag } from '@/ui/useDrag'
import { nudgeCrop, placeInset } from '@/edit/layouts'
import { useBenchContext, usePassage, useView } from '../benchContext'
import { useSelectedRegion } from '../useSelectedRegion'
import { CornerGrips } from '@/ui/CornerGrips'
import { PanelBadge } from './PanelBadge'
import { useHanging } from './useHanging'
import { iconSize, textSize } from '@/ui/theme'
import { wording } from './wording'

const ZOOM_STEP = 1.05

/** Smallest side of an inset, px of the shape. */
const MIN_INSET = 32

interface PanelBoxProps {
  placed: PlacedPanel
  shape: Shape
  outlines: boolean
}

/**
 * Placing panels makes new objects for all of them whenever one region moves: what matters here of a panel is
 * compared.
 */
function showTheSame(a: PanelBoxProps, b: PanelBoxProps): boolean {
  const matters = ({ placed: { panel, rect, region, picture, source }, shape, outlines }: PanelBoxProps) => [
    panel,
    shape,
    outlines,
    source.feed,
    source.from.id,
    region?.id,
    rect.x,
    rect.y,
    rect.width,
    rect.height,
    picture?.crop.width,
    picture?.dest.width,
  ]
  const other = matters(b)
  return matters(a).every((value, i) => value === other[i])
}

/**
 * A panel in the result: drag the picture inside it, zoom it with the wheel or + and −, nudge it with the arrows. An
 * inset is dragged and nudged itself; with Shift it is the picture inside that moves. With Alt a crop moves in this
 * shape only, which then shows a mark for it.
 */
export const PanelBox = memo(function PanelBox({ placed, shape, outlines }: PanelBoxProps) {
  const { session, view } = useBenchContext()
  const { passage } = usePassage()
  const { panel, rect, region, picture, insetId, source } = placed
  const element = useRef<HTMLDivElement>(null)
  const selectedRegion = useSelectedRegion()
  const selected =
    useView((v) => v.selection?.kind === 'panel' && v.selection.id === panel.id) ||
    (region !== null && region.id === selectedRegion)
  const inset = useHanging(shape, {
    id: panel.id,
    rect,
    insetId,
    least: MIN_INSET,
    place: (to, only, gesture) =>
      insetId !== null &&
      placeInset(session, { scope: { passageId: passage.id, shape, only }, id: insetId, rect: to }, gesture),
  })
  const { colour } = roleMark(panel.role)
  const select = () => view.setState({ selection: { kind: 'panel', id: panel.id } })
  const ownCrop = passage.corrections.some((c) => c.panelId === panel.id && c.shapeId === shape.id)
  const nudgeBy = (outputDx: number, outputDy: number, only: boolean, gesture: string) => {
    if (!picture) return
    const { video } = recordingOf(session.value, source.recordingId)
    /** Source pixels that one output pixel stands for. */
    const perOutput =
      Math.max(picture.crop.width, picture.crop.height) / Math.max(picture.dest.width, picture.dest.height)
    const by = throughFrame(panel, { x: outputDx * perOutput, y: outputDy * perOutput })
    nudgeCrop(
      session,
      {
        passageId: passage.id,
        scope: { shape, only },
        id: panel.id,
        by: { dx: -by.x / video.width, dy: -by.y / video.height },
      },
      gesture,
    )
  }

  const dragging = useDrag((event) => {
    select()
    const shown = event.currentTarget.getBoundingClientRect()
    const outputPerCss = rect.width / shown.width
    if (insetId !== null && !event.shiftKey)
      return inset.drag(outputPerCss, (event.target as HTMLElement).dataset.insetGrip ?? null)
    if (!picture || !placed.canZoom) return null
    let last = { dx: 0, dy: 0 }
    return ({ dx, dy, shiftKey, altKey, gesture }) => {
      // With Shift the picture goes straight; in an inset Shift has begun the drag already.
      const to = shiftKey && insetId === null ? straightened(dx, dy) : { dx, dy }
      nudgeBy((to.dx - last.dx) * outputPerCss, (to.dy - last.dy) * outputPerCss, altKey, gesture)
      last = to
    }
  }, inset.release)

  useEffect(() => {
    const node = element.current
    if (!node) return
    const onWheel = (event: WheelEvent) => {
      event.preventDefault()
      nudgeCrop(
        session,
        {
          passageId: passage.id,
          scope: { shape, only: event.altKey },
          id: panel.id,
          by: { zoom: event.deltaY < 0 ? ZOOM_STEP : 1 / ZOOM_STEP },
        },
        `wheel ${panel.id}`,
      )
    }
    node.addEventListener('wheel', onWheel, { passive: false })
    return () => node.removeEventListener('wheel', onWheel)
  }, [session, passage.id, shape, panel.id])

  const onKeyDown = heldKeys({
    arrow: ({ dx, dy, times, alt }) => {
      if (insetId !== null) inset.key(dx * 2 * times, dy * 2 * times, alt)
      else nudgeBy(dx * times, dy * times, alt, `keys crop ${panel.id}`)
    },
    zoom: (direction, alt) =>
      nudgeCrop(
        session,
        {
          passageId: passage.id,
          scope: { shape, only: alt },
          id: panel.id,
          by: { zoom: direction > 0 ? ZOOM_STEP : 1 / ZOOM_STEP },
        },
        `keys zoom ${panel.id}`,
      ),
  })

  const outlineOf = () => {
    if (!outlines) return 'none'
    if (selected) return `2px solid ${colour}`
    return insetId === null ? 'none' : `1px dashed ${colour}`
  }
  const cursorOf = () => {
    if (insetId !== null) return 'move'
    return picture ? 'grab' : 'default'
  }
  const place = scaleRect(rect, 100 / shape.width, 100 / shape.height)
  return (
    <Box
      ref={element}
      role="group"
      tabIndex={0}
      aria-roledescription={insetId === null ? wording.panel : wording.insetLowercase}
      aria-label={`${panel.role} ${insetId === null ? wording.panel : wording.insetLowercase}, ${rect.width} × ${rect.height}${region ? '' : wording.nothingToShow}`}
      data-panel={panel.id}
      onPointerDown={dragging}
      onFocus={select}
      onKeyDown={onKeyDown}
      style={{ left: `${place.x}%`, top: `${place.y}%`, width: `${place.width}%`, height: `${place.height}%` }}
      sx={{
        position: 'absolute',
        zIndex: insetId === null ? undefined : 4,
        cursor: cursorOf(),
        touchAction: 'none',
        outline: outlineOf(),
        outlineOffset: insetId === null ? -2 : 0,
        '&:focus-visible': { outline: `2px solid ${colour}`, boxShadow: 'inset 0 0 0 4px #fff' },
      }}
    >
      {outlines && <PanelBadge panel={panel} />}
      {outlines && ownCrop && <OwnCrop />}
      {outlines && selected && insetId !== null && <CornerGrips name="inset-grip" size={14} colour={colour} />}
      {!region && (
        <Box
          sx={{
            position: 'absolute',
            inset: 0,
            display: 'grid',
            placeItems: 'center',
            textAlign: 'center',
            p: 1,
            color: '#DAD7CC',
            fontSize: textSize.small,
          }}
        >
          {wording.noRegionYet(panel.role)}
        </Box>
      )}
    </Box>
  )
}, showTheSame)

/** Says that a crop goes its own way in this shape. */
function OwnCrop() {
  return (
    <Box
      component="span"
      title={wording.croppedByItselfInThis}
      sx={{
        position: 'absolute',
        right: 0,
        top: 0,
        p: '1px 3px',
        bgcolor: 'rgba(32,38,31,0.78)',
        color: '#fff',
        lineHeight: 0,
      }}
    >
      <LinkOffIcon titleAccess={wording.croppedByItselfInThisShape} sx={{ fontSize: iconSize.small }} />
    </Box>
  )
}
