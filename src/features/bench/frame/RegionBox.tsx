'use client'

import { compassShare } from '@/core/geometry/compass'
import LockIcon from '@mui/icons-material/Lock'
import Box from '@mui/material/Box'
import { memo } from 'react'
import { toEvenPixels } from '@/core/geometry/evenGrid'
import { scaleRect, type Point, type Rect, type Size } from '@/core/geometry/rect'
import { snapEdges } from '@/core/detect/regions/snap'
import { GRIPS, moveRect, resizeRect, straightened, type Grip } from '@/core/geometry/resize'
import type { Region } from '@/core/model/region'
import { heldKeys } from '@/ui/heldKeys'
import { roleMark } from '@/ui/roleMarks'
import { fonts, textSize } from '@/ui/theme'
import { isShifted } from '@/core/compose/regionIn'
import { placeRegion } from '@/edit/regions'
import { useBenchContext, usePassage, useView } from '../benchContext'
import { useDrag } from '@/ui/useDrag'
import { useSelectedRegion } from '../useSelectedRegion'
import { useSnapLines } from './useLook'
import { wording } from './wording'

/** An edge that is dragged this near to one in the picture goes there, CSS px. */
export const SNAP_REACH = 7

/** An arrow key moves or resizes a region by so many px of the recording. */
const STEP = 2

/** Smallest side of a region, px of the frame. */
const LEAST = 16

/**
 * A region over the picture, as it lies in the passage worked on: corner ticks and a small tab. Drag it to move
 * (Shift: straight; Alt: in this passage only), its edges and corners to resize (Shift holds the proportion, Alt
 * keeps the centre; edges snap to those in the picture, unless Ctrl is held). By keyboard: arrows move it, Alt +
 * arrows resize it, Shift makes larger steps. Once it lies differently in this passage, all of these do so there.
 */
export const RegionBox = memo(function RegionBox({ region, frame }: { region: Region; frame: Size }) {
  const { session, view } = useBenchContext()
  const { passage } = usePassage()
  const onlyHere = isShifted(passage, region.id)
  const selected = useSelectedRegion() === region.id
  const marked = useView((v) => v.selection?.kind === 'region' && v.selection.id === region.id)
  const { colour, dash } = roleMark(region.role)
  const pixels = toEvenPixels(region.bounds, frame)
  const whole = { x: 0, y: 0, width: frame.width, height: frame.height }
  const select = () => view.setState({ selection: { kind: 'region', id: region.id } })
  const set = (rect: Rect, label: string, gesture: string, here = onlyHere) =>
    placeRegion(session, passage, frame, region, rect, label, gesture, here)
  const letGo = () => view.setState({ moving: null, magnified: null })

  const moving = useDrag((event) => {
    select()
    if (region.locked) {
      // Nor does a press draw a new region over it.
      event.stopPropagation()
      return null
    }
    const box = event.currentTarget.parentElement?.getBoundingClientRect()
    if (!box) return null
    const perPixel = frame.width / box.width
    const here = onlyHere || event.altKey
    return ({ dx, dy, shiftKey, gesture }) => {
      view.setState({ moving: region.id })
      const way = shiftKey ? straightened(dx, dy) : { dx, dy }
      set(moveRect(pixels, way.dx * perPixel, way.dy * perPixel, whole), wording.move(region.name), gesture, here)
    }
  }, letGo)

  const onKeyDown = heldKeys({
    arrow: ({ dx, dy, times, alt }) => {
      if (region.locked) return false
      const [x, y] = [dx * times * STEP, dy * times * STEP]
      if (alt)
        set(
          resizeRect(pixels, 'se', x, y, {
            bounds: whole,
            least: LEAST,
            aspect: onlyHere ? pixels.width / pixels.height : region.proportion,
          }),
          wording.resize(region.name),
          `keys resize ${region.id}`,
        )
      else set(moveRect(pixels, x, y, whole), wording.move(region.name), `keys move ${region.id}`)
    },
  })

  const place = scaleRect(pixels, 100 / frame.width, 100 / frame.height)
  return (
    <Box
      role="group"
      tabIndex={0}
      aria-label={wording.at(region.name, pixels.width, pixels.height, pixels.x, pixels.y, region.locked, onlyHere)}
      aria-roledescription={wording.region}
      data-role={region.role}
      onPointerDown={moving}
      onFocus={select}
      onKeyDown={onKeyDown}
      style={{ left: `${place.x}%`, top: `${place.y}%`, width: `${place.width}%`, height: `${place.height}%` }}
      sx={{
        position: 'absolute',
        cursor: region.locked ? 'default' : 'move',
        touchAction: 'none',
        zIndex: selected ? 2 : 1,
        '&:focus-visible': { outline: '2px solid #fff', outlineOffset: 2 },
        // Styled from here: eight components of their own would each cost time while the box is dragged.
        '& > svg': { position: 'absolute', inset: 0, width: '100%', height: '100%', overflow: 'visible' },
        '& > [data-grip]': {
          position: 'absolute',
          width: 18,
          height: 18,
          m: '-9px',
          display: 'grid',
          placeItems: 'center',
          touchAction: 'none',
          '&::after': { content: '""', width: 8, height: 8, bgcolor: '#fff', border: `1.5px solid ${colour}` },
        },
      }}
    >
      <svg aria-hidden>
        <rect
          x="0"
          y="0"
          width="100%"
          height="100%"
          fill="none"
          stroke={colour}
          strokeWidth={selected ? 2 : 1}
          strokeDasharray={dash}
          opacity={selected ? 1 : 0.75}
        />
        {region.outline.mask.kind === 'ellipse' && (
          <ellipse cx="50%" cy="50%" rx="50%" ry="50%" fill="none" stroke={colour} strokeWidth={1} />
        )}
      </svg>
      <CornerTicks colour={colour} />
      <NameTab
        role={region.role}
        name={region.name}
        isGuess={region.isGuess === true}
        isLocked={region.locked}
        onlyHere={onlyHere}
        isInside={pixels.y < frame.height * 0.06}
      />
      {marked &&
        !region.locked &&
        GRIPS.map((grip) => (
          <GripHandle
            key={grip}
            grip={grip}
            region={region}
            pixels={pixels}
            frame={frame}
            whole={whole}
            heldAspect={onlyHere ? pixels.width / pixels.height : region.proportion}
            onResize={set}
            onLetGo={letGo}
          />
        ))}
    </Box>
  )
})

const CornerTicks = memo(function CornerTicks({ colour }: { colour: string }) {
  const length = 'min(14px, 40%)'
  return (
    <>
      {(['nw', 'ne', 'se', 'sw'] as const).map((corner) => (
        <Box
          key={corner}
          aria-hidden
          sx={{
            position: 'absolute',
            width: length,
            height: length,
            pointerEvents: 'none',
            ...(corner.includes('n')
              ? { top: -1, borderTop: `3px solid ${colour}` }
              : { bottom: -1, borderBottom: `3px solid ${colour}` }),
            ...(corner.includes('w')
              ? { left: -1, borderLeft: `3px solid ${colour}` }
              : { right: -1, borderRight: `3px solid ${colour}` }),
          }}
        />
      ))}
    </>
  )
})

interface NameTabProps extends Pick<Region, 'role' | 'name'> {
  isGuess: boolean
  isLocked: boolean
  onlyHere: boolean
  /** Whether there is no room for it over the box. */
  isInside: boolean
}

/** What a region is called. Apart from its box, which is drawn anew while the region is dragged. */
const NameTab = memo(function NameTab({ role, name, isGuess, isLocked, onlyHere, isInside }: NameTabProps) {
  const { colour, letter } = roleMark(role)
  return (
    <Box
      sx={{
        position: 'absolute',
        left: -1,
        bottom: '100%',
        px: '6px',
        height: 17,
        display: 'flex',
        gap: '6px',
        alignItems: 'center',
        bgcolor: colour,
        color: '#fff',
        fontFamily: fonts.numbers,
        fontSize: textSize.small,
        fontWeight: 600,
        whiteSpace: 'nowrap',
        ...(isInside && { bottom: 'auto', top: 0 }),
      }}
    >
      <span>{letter}</span>
      <span>
        {name}
        {isGuess && '?'}
      </span>
      {onlyHere && <span>{wording.hereOnly}</span>}
      {isLocked && <LockIcon sx={{ fontSize: 12 }} />}
    </Box>
  )
})

interface GripHandleProps {
  grip: Grip
  region: Region
  pixels: Rect
  frame: Size
  whole: Rect
  /** Width over height that resizing keeps; null: free. */
  heldAspect: number | null
  onResize: (rect: Rect, label: string, gesture: string) => void
  onLetGo: () => void
}

function GripHandle({ grip, region, pixels, frame, whole, heldAspect, onResize, onLetGo }: GripHandleProps) {
  const { view } = useBenchContext()
  const snapLines = useSnapLines()
  const start = useDrag((event) => {
    const box = event.currentTarget.closest('[data-testid="frame-picture"]')?.getBoundingClientRect()
    if (!box) return null
    const perPixel = frame.width / box.width
    return ({ dx, dy, shiftKey, altKey, ctrlKey, gesture }) => {
      const aspect = heldAspect ?? (shiftKey ? pixels.width / pixels.height : null)
      const free = resizeRect(pixels, grip, dx * perPixel, dy * perPixel, {
        bounds: whole,
        least: LEAST,
        aspect,
        fromCentre: altKey,
      })
      const snaps = snapLines && aspect === null && !altKey && !ctrlKey
      const rect = snaps ? snapEdges(free, grip, snapLines, Math.round(SNAP_REACH * perPixel)) : free
      view.setState({ moving: region.id, magnified: gripPoint(rect, grip) })
      onResize(rect, wording.resize(region.name), gesture)
    }
  }, onLetGo)
  const share = compassShare(grip)
  return (
    <span
      data-grip={grip}
      aria-hidden
      onPointerDown={start}
      style={{ left: `${100 * share.x}%`, top: `${100 * share.y}%`, cursor: `${grip}-resize` }}
    />
  )
}

/** The corner, or the middle of the edge, that a grip holds. */
function gripPoint({ x, y, width, height }: Rect, grip: Grip): Point {
  const share = compassShare(grip)
  return {
    x: x + width * share.x,
    y: y + height * share.y,
  }
}
