'use client'

import Box from '@mui/material/Box'
import { useEffect, useRef, useState } from 'react'
import type { Size } from '@/core/geometry/rect'
import { inspector } from '@/media/inspect/inspector'
import { toRecordingMicros } from '@/core/time/timeMap'
import { fonts, palette, textSize } from '@/ui/theme'
import { useBenchContext, usePassage, useTimeMap, useView } from '../benchContext'

const TIMES = 8
/** Pixels of the recording across the magnifier. */
const ACROSS = 20
const SIDE = TIMES * ACROSS

/**
 * The recording's own pixels at the edge that is dragged, eight times as large, with the grid between them; in the
 * corner farthest from it.
 */
export function Magnifier({ frame }: { frame: Size }) {
  const point = useView((v) => v.magnified)
  const bitmap = useFrameAtPlayhead(point !== null)
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const ctx = canvas.current?.getContext('2d', { alpha: false })
    if (ctx && point) drawMagnified(ctx, bitmap, point.x, point.y, frame)
  }, [bitmap, point, frame])
  if (!point) return null
  const right = point.x < frame.width / 2
  return (
    <Box
      aria-hidden
      data-testid="magnifier"
      sx={{
        position: 'absolute',
        top: point.y < frame.height / 2 ? undefined : 8,
        bottom: point.y < frame.height / 2 ? 8 : undefined,
        left: right ? undefined : 8,
        right: right ? 8 : undefined,
        pointerEvents: 'none',
        zIndex: 3,
        border: `2px solid ${palette.sheet}`,
        bgcolor: palette.mat,
        lineHeight: 0,
      }}
    >
      <canvas ref={canvas} width={SIDE} height={SIDE} style={{ width: SIDE, height: SIDE }} />
      <Box
        sx={{
          position: 'absolute',
          left: 0,
          bottom: 0,
          px: 1,
          fontFamily: fonts.numbers,
          fontSize: textSize.small,
          lineHeight: '16px',
          color: palette.ink,
          bgcolor: palette.sheet,
        }}
      >
        {Math.round(point.x)}, {Math.round(point.y)}
      </Box>
    </Box>
  )
}

/** The recording's frame at the playhead in all its pixels, fetched when it is first wanted. */
function useFrameAtPlayhead(wanted: boolean): ImageBitmap | null {
  const { player, files } = useBenchContext()
  const { recording } = usePassage()
  const map = useTimeMap()
  const [bitmap, setBitmap] = useState<ImageBitmap | null>(null)
  // A frame for the whole of a drag: playing on or another edit in between changes nothing of what is dragged.
  const latest = useRef({ player, files, recording, map })
  latest.current = { player, files, recording, map }
  useEffect(() => {
    const { player, files, recording, map } = latest.current
    const file = files.get(recording.id)
    const place = toRecordingMicros(map, Math.min(player.positionMicros, Math.max(0, map.lengthMicros - 1)))
    if (!wanted || !file || place?.passage.recordingId !== recording.id) return
    let live = true
    let got: ImageBitmap | null = null
    void inspector()
      .frame({ id: recording.id, file, originMicros: recording.originMicros }, place.recordingMicros)
      .then(
        (found) => {
          got = found
          if (live) setBitmap(found)
          else found?.close()
        },
        () => {},
      )
    return () => {
      live = false
      setBitmap(null)
      got?.close()
    }
  }, [wanted])
  return bitmap
}

function drawMagnified(
  ctx: CanvasRenderingContext2D,
  bitmap: ImageBitmap | null,
  x: number,
  y: number,
  frame: Size,
): void {
  const [left, top] = [Math.round(x) - ACROSS / 2, Math.round(y) - ACROSS / 2]
  ctx.fillStyle = palette.mat
  ctx.fillRect(0, 0, SIDE, SIDE)
  ctx.imageSmoothingEnabled = false
  if (bitmap) ctx.drawImage(bitmap, left, top, ACROSS, ACROSS, 0, 0, SIDE, SIDE)
  ctx.fillStyle = 'rgba(255, 255, 255, 0.22)'
  for (let n = 1; n < ACROSS; n++) {
    ctx.fillRect(n * TIMES, 0, 1, SIDE)
    ctx.fillRect(0, n * TIMES, SIDE, 1)
  }
  // Where the edges come to lie: between two pixels.
  ctx.fillStyle = palette.haw
  if (x > 0 && x < frame.width) ctx.fillRect(SIDE / 2 - 1, 0, 2, SIDE)
  if (y > 0 && y < frame.height) ctx.fillRect(0, SIDE / 2 - 1, SIDE, 2)
}
