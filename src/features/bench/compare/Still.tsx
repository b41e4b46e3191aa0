'use client'

import Box from '@mui/material/Box'
import { useEffect, useRef, useState } from 'react'
import { palette, textSize } from '@/ui/theme'
import { useBlobUrl } from '@/ui/useBlobUrl'
import { wording } from './wording'

/** A slider that is dragged asks for many moments: the last is drawn. */
const REST_MS = 120

interface StillProps {
  /** What it shows: its caption and accessible name. */
  label: string
  /** Width over height. */
  proportion: number
  /** Draws the picture; null where there is none. Called again when `moment` changes. */
  draw: () => Promise<Blob | null>
  moment: string
}

const WORDS = { drawing: 'drawing…', drawn: '', none: wording.noPicture }

/** One picture of a comparison, drawn as it is rendered; the last one stays until the next is there. */
export function Still({ label, proportion, draw, moment }: StillProps) {
  const [picture, setPicture] = useState<Blob | null>(null)
  const [state, setState] = useState<'drawing' | 'drawn' | 'none'>('drawing')
  const latest = useRef(draw)
  latest.current = draw
  useEffect(() => {
    // Pictures of one moment are the same, however they are asked for.
    void moment
    let live = true
    setState('drawing')
    const timer = setTimeout(() => {
      void latest.current().then(
        (made) => {
          if (!live) return
          setPicture(made)
          setState(made ? 'drawn' : 'none')
        },
        () => live && setState('none'),
      )
    }, REST_MS)
    return () => {
      live = false
      clearTimeout(timer)
    }
  }, [moment])
  const url = useBlobUrl(picture)
  const isShown = url !== null && state !== 'none'
  return (
    <Box
      component="figure"
      data-state={state}
      sx={{ m: 0, minWidth: 0, flex: `${proportion} 1 0`, maxWidth: `calc(56dvh * ${proportion})` }}
    >
      <Box
        sx={{
          aspectRatio: `${proportion}`,
          bgcolor: palette.mat,
          display: 'grid',
          placeItems: 'center',
          color: '#C9CCC6',
          fontSize: textSize.note,
          opacity: state === 'drawing' && url ? 0.7 : 1,
        }}
      >
        {isShown ? (
          <Box component="img" src={url} alt={label} sx={{ width: '100%', display: 'block' }} />
        ) : (
          WORDS[state]
        )}
      </Box>
      <Box component="figcaption" sx={{ mt: 1, fontSize: textSize.note, color: palette.inkSoft }}>
        {label}
      </Box>
    </Box>
  )
}
