'use client'

import Box from '@mui/material/Box'
import { useRef } from 'react'
import { moveRect, resizeRect, type Grip } from '@/core/geometry/resize'
import type { Rect } from '@/core/geometry/rect'
import type { Outlet, Zone } from '@/core/model/outlet'
import { heldKeys } from '@/ui/heldKeys'
import { palette, textSize } from '@/ui/theme'
import { useDrag } from '@/ui/useDrag'
import { wording } from './wording'

const WHOLE: Rect = { x: 0, y: 0, width: 1, height: 1 }
/** Smallest side of a zone, and how far an arrow key moves one: shares of the shape. */
const LEAST = 0.02
const STEP = 0.01
const CORNERS: readonly Grip[] = ['nw', 'ne', 'se', 'sw']

interface ZoneFieldsProps {
  outlet: Pick<Outlet, 'shape' | 'zones'>
  /** CSS px. */
  height: number
  onZone: (n: number, rect: Rect) => void
}

/** An outlet's zones on its shape: dragged, resized by their corners, moved by arrows and with Alt resized. */
export function ZoneFields({ outlet: { shape, zones }, height, onZone }: ZoneFieldsProps) {
  const field = useRef<HTMLDivElement>(null)
  const scale = Math.min(height / shape.height, height / shape.width)
  return (
    <Box
      ref={field}
      role="group"
      aria-label={wording.zonesOnTheShape}
      sx={{
        position: 'relative',
        width: shape.width * scale,
        height: shape.height * scale,
        bgcolor: palette.mat,
        overflow: 'hidden',
      }}
    >
      {zones.map((zone, n) => (
        <ZoneBox
          key={n}
          zone={zone}
          size={() => field.current?.getBoundingClientRect() ?? null}
          onPlace={(rect) => onZone(n, rect)}
        />
      ))}
    </Box>
  )
}

function ZoneBox({
  zone: { name, rect },
  size,
  onPlace,
}: {
  zone: Zone
  size: () => DOMRect | null
  onPlace: (rect: Rect) => void
}) {
  const dragging = useDrag((event) => {
    const whole = size()
    const grip = (event.target as HTMLElement).dataset.grip as Grip | undefined
    if (!whole) return null
    return ({ dx, dy }) => {
      const [x, y] = [dx / whole.width, dy / whole.height]
      onPlace(grip ? resizeRect(rect, grip, x, y, { bounds: WHOLE, least: LEAST }) : moveRect(rect, x, y, WHOLE))
    }
  })
  const onKeyDown = heldKeys({
    arrow: ({ dx, dy, times, alt }) => {
      const [x, y] = [dx * times * STEP, dy * times * STEP]
      onPlace(alt ? resizeRect(rect, 'se', x, y, { bounds: WHOLE, least: LEAST }) : moveRect(rect, x, y, WHOLE))
    },
  })
  return (
    <Box
      role="group"
      tabIndex={0}
      aria-roledescription={wording.zone}
      aria-label={name}
      title={name}
      onPointerDown={dragging}
      onKeyDown={onKeyDown}
      style={{
        left: `${100 * rect.x}%`,
        top: `${100 * rect.y}%`,
        width: `${100 * rect.width}%`,
        height: `${100 * rect.height}%`,
      }}
      sx={{
        position: 'absolute',
        cursor: 'move',
        touchAction: 'none',
        bgcolor: 'rgba(179,64,44,0.55)',
        border: '1px solid #FBFAF6',
        color: '#fff',
        fontSize: textSize.tiny,
        lineHeight: 1.1,
        p: '1px 2px',
        overflow: 'hidden',
        textAlign: 'left',
        '&:focus-visible': { outline: `2px solid ${palette.straw}`, outlineOffset: -2 },
      }}
    >
      {name}
      {CORNERS.map((grip) => (
        <Box
          key={grip}
          aria-hidden
          data-grip={grip}
          sx={{
            position: 'absolute',
            width: 10,
            height: 10,
            cursor: `${grip}-resize`,
            ...(grip.includes('n') ? { top: -2 } : { bottom: -2 }),
            ...(grip.includes('w') ? { left: -2 } : { right: -2 }),
          }}
        />
      ))}
    </Box>
  )
}
