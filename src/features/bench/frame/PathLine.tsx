'use client'

import Box from '@mui/material/Box'
import { useMemo } from 'react'
import { pathAt, withoutKey } from '@/core/compose/cropPath'
import type { Rect } from '@/core/geometry/rect'
import type { CropPath } from '@/core/model/passage'
import type { Region } from '@/core/model/region'
import { toOutputMicros, toRecordingMicros } from '@/core/time/timeMap'
import { formatTime } from '@/ui/format'
import { heldKeys } from '@/ui/heldKeys'
import { palette } from '@/ui/theme'
import { setPath } from '@/edit/regions'
import { useBenchContext, usePassage, useTimeMap } from '../benchContext'
import { wording } from './wording'

/** Places of the path that the line is drawn through. */
const POINTS = 240

/**
 * A region's crop path over its ribbon: left edge of the region at the top, right edge at the bottom. Keys lead to
 * their time; Delete takes one away.
 */
export function PathLine({
  region,
  bounds,
  path,
  height,
}: {
  region: Pick<Region, 'id' | 'name'>
  bounds: Rect
  path: CropPath
  height: number
}) {
  const { session, player } = useBenchContext()
  const { passage } = usePassage()
  const passageId = passage.id
  const map = useTimeMap()
  const { lengthMicros } = map
  const line = useMemo(
    () =>
      Array.from({ length: POINTS }, (_, n) => {
        const place = toRecordingMicros(map, Math.round(((n + 0.5) * lengthMicros) / POINTS))
        return place?.passage.id === passageId
          ? `${(100 * (n + 0.5)) / POINTS},${height * acrossOf(bounds, pathAt(path.keys, place.recordingMicros).x)}`
          : ''
      })
        .filter(Boolean)
        .join(' '),
    [map, lengthMicros, passageId, path, bounds, height],
  )
  return (
    <>
      <Box
        component="svg"
        aria-hidden
        viewBox={`0 0 100 ${height}`}
        preserveAspectRatio="none"
        sx={{ position: 'absolute', left: 0, top: 0, width: '100%', height, pointerEvents: 'none' }}
      >
        <polyline
          points={line}
          fill="none"
          stroke="#1b1c1b"
          strokeWidth={4}
          vectorEffect="non-scaling-stroke"
          opacity={0.6}
        />
        <polyline points={line} fill="none" stroke="#fff" strokeWidth={2} vectorEffect="non-scaling-stroke" />
      </Box>
      {path.keys.map((key) => {
        const t = toOutputMicros(map, passage.recordingId, key.micros)[0]
        return (
          t !== undefined && (
            <Box
              key={key.micros}
              component="button"
              type="button"
              aria-label={wording.keyAt(formatTime(t, 2), key.jump)}
              onClick={(e) => {
                e.stopPropagation()
                player.seek(t)
              }}
              onKeyDown={heldKeys({
                remove: () =>
                  setPath(session, {
                    passageId: passage.id,
                    region,
                    keys: withoutKey(path.keys, key.micros),
                    label: wording.removeKey,
                  }),
              })}
              sx={{
                all: 'unset',
                position: 'absolute',
                left: `${(100 * t) / Math.max(1, lengthMicros)}%`,
                top: `${height * acrossOf(bounds, key.x) - 5}px`,
                ml: '-5px',
                width: 10,
                height: 10,
                cursor: 'pointer',
                transform: key.jump ? undefined : 'rotate(45deg) scale(0.75)',
                bgcolor: '#fff',
                border: `2px solid ${palette.ink}`,
                boxSizing: 'border-box',
                '&:focus-visible': { outline: `2px solid ${palette.straw}`, outlineOffset: 2 },
              }}
            />
          )
        )
      })}
    </>
  )
}

/** How far a place of the frame lies across a region, 0 at its left edge, 1 at its right. */
function acrossOf({ x, width }: Rect, at: number): number {
  return Math.min(1, Math.max(0, (at - x) / width))
}
