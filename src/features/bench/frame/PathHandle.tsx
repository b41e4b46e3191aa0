'use client'

import Box from '@mui/material/Box'
import { useEffect, useRef } from 'react'
import { pathAt, withKey } from '@/core/compose/cropPath'
import { pushInside, type Point } from '@/core/geometry/rect'
import type { CropPath } from '@/core/model/passage'
import type { Region } from '@/core/model/region'
import { toRecordingMicros } from '@/core/time/timeMap'
import { heldKeys } from '@/ui/heldKeys'
import { roleMark } from '@/ui/roleMarks'
import { useDrag } from '@/ui/useDrag'
import { setPath } from '@/edit/regions'
import { useBenchContext, usePassage, useTimeMap } from '../benchContext'
import { wording } from './wording'

/** An arrow key moves the path by this share of the frame; with Shift ten times as far. */
const NUDGE = 0.002

/**
 * Where a region's crops are aimed at the playhead: dragged, or moved by arrow keys, it sets a key of the path there.
 */
export function PathHandle({ region, path }: { region: Region; path: CropPath }) {
  const { session, player } = useBenchContext()
  const { passage } = usePassage()
  const map = useTimeMap()
  const handle = useRef<HTMLDivElement>(null)
  const here = () => {
    const place = toRecordingMicros(map, Math.min(player.positionMicros, Math.max(0, map.lengthMicros - 1)))
    return place?.passage.id === passage.id ? place.recordingMicros : null
  }
  useEffect(
    () =>
      player.onPosition((t) => {
        const place = toRecordingMicros(map, Math.min(t, Math.max(0, map.lengthMicros - 1)))
        if (!handle.current || place?.passage.id !== passage.id) return
        const at = pathAt(path.keys, place.recordingMicros)
        handle.current.style.left = `${100 * at.x}%`
        handle.current.style.top = `${100 * at.y}%`
      }),
    [player, map, passage.id, path],
  )
  const aim = (micros: number, { x, y }: Point, gesture: string) => {
    const inside = pushInside({ x, y, width: 0, height: 0 }, region.bounds)
    setPath(
      session,
      {
        passageId: passage.id,
        region,
        keys: withKey(path.keys, micros, { x: inside.x, y: inside.y }),
        label: wording.aim(region.name),
      },
      gesture,
    )
  }
  const dragging = useDrag((event) => {
    const box = event.currentTarget.closest('[data-testid="frame-picture"]')?.getBoundingClientRect()
    const micros = here()
    if (!box || micros === null) return null
    const from = pathAt(path.keys, micros)
    return ({ dx, dy, shiftKey, gesture }) => {
      const sideways = Math.abs(dx) >= Math.abs(dy)
      aim(
        micros,
        {
          x: from.x + (shiftKey && !sideways ? 0 : dx / box.width),
          y: from.y + (shiftKey && sideways ? 0 : dy / box.height),
        },
        gesture,
      )
    }
  })
  const onKeyDown = heldKeys({
    arrow: ({ dx, dy, times }) => {
      const micros = here()
      if (micros === null) return false
      const at = pathAt(path.keys, micros)
      aim(micros, { x: at.x + dx * times * NUDGE, y: at.y + dy * times * NUDGE }, `keys aim ${region.id} ${micros}`)
    },
  })
  const { colour } = roleMark(region.role)
  return (
    <Box
      ref={handle}
      role="group"
      tabIndex={0}
      aria-roledescription={wording.path}
      aria-label={wording.isAimedHere(region.name)}
      onPointerDown={dragging}
      onKeyDown={onKeyDown}
      sx={{
        position: 'absolute',
        width: 22,
        height: 22,
        m: '-11px',
        borderRadius: '50%',
        border: `2px solid ${colour}`,
        boxShadow: '0 0 0 1.5px #fff, inset 0 0 0 1.5px #fff',
        cursor: 'grab',
        touchAction: 'none',
        zIndex: 3,
        '&::before, &::after': { content: '""', position: 'absolute', bgcolor: colour },
        '&::before': { left: 8, top: 3, width: 2, height: 12 },
        '&::after': { left: 3, top: 8, width: 12, height: 2 },
        '&:focus-visible': { outline: '2px solid #fff', outlineOffset: 3 },
      }}
    />
  )
}
