'use client'

import Box from '@mui/material/Box'
import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect, useRef, useState } from 'react'
import type { HighlightId } from '@/core/model/ids'
import type { Render } from '@/core/model/render'
import type { Shape } from '@/core/model/shape'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { openRenderFile } from '@/media/render/partFile'
import { rendersOf } from '@/store/renders'
import { palette, textSize } from '@/ui/theme'
import { useBlobUrl } from '@/ui/useBlobUrl'
import { wording } from './wording'

/** The newest finished file of a highlight in a shape; undefined while that is looked up, null when there is none. */
export function useFinishedFile(highlightId: HighlightId, shape: Shape | undefined): Render | null | undefined {
  const shapeId = shape?.id
  return useLiveQuery(async () => {
    const own = (await rendersOf(highlightId)).filter((r) => r.state.kind === 'finished' && r.shape.id === shapeId)
    return own.sort((a, b) => b.createdAt.localeCompare(a.createdAt))[0] ?? null
  }, [highlightId, shapeId])
}

/** A moment of a finished file, as the browser plays it. */
export function FinishedFile({ finished, shape, t }: { finished: Render | null | undefined; shape: Shape; t: Micros }) {
  const [file, setFile] = useState<File | null>(null)
  const video = useRef<HTMLVideoElement>(null)
  useEffect(() => {
    let live = true
    setFile(null)
    if (finished) void openRenderFile(finished.id).then((found) => live && setFile(found))
    return () => {
      live = false
    }
  }, [finished])
  const url = useBlobUrl(file)
  useEffect(() => {
    // The middle of a frame's time: at its edge a player may show either neighbour.
    if (video.current && finished)
      video.current.currentTime =
        t / MICROS_PER_SECOND + finished.settings.frameRate.den / finished.settings.frameRate.num / 2
  }, [t, url, finished])
  if (finished === undefined) return null
  if (finished === null)
    return (
      <Box sx={{ fontSize: textSize.body, color: palette.inkSoft, alignSelf: 'center' }}>
        {wording.noFileOfThisShape}
      </Box>
    )
  return (
    <Box
      component="figure"
      sx={{
        m: 0,
        minWidth: 0,
        flex: `${shape.width / shape.height} 1 0`,
        maxWidth: `calc(56dvh * ${shape.width / shape.height})`,
      }}
    >
      <Box sx={{ aspectRatio: `${shape.width / shape.height}`, bgcolor: palette.mat }}>
        {url && (
          <Box
            component="video"
            ref={video}
            src={url}
            muted
            playsInline
            aria-label={wording.finishedFile}
            sx={{ width: '100%', display: 'block' }}
          />
        )}
      </Box>
      <Box
        component="figcaption"
        sx={{ mt: 1, fontSize: textSize.note, color: palette.inkSoft, overflowWrap: 'anywhere' }}
      >
        {finished.state.kind === 'finished' ? finished.state.file.fileName : ''}
      </Box>
    </Box>
  )
}
