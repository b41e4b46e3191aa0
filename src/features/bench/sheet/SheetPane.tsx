'use client'

import ZoomInIcon from '@mui/icons-material/ZoomIn'
import ZoomOutIcon from '@mui/icons-material/ZoomOut'
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import Tooltip from '@mui/material/Tooltip'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useRef, useState, type RefObject } from 'react'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { formatTime } from '@/ui/format'
import { fonts, palette } from '@/ui/theme'
import { partsOf, useBenchContext, useEdit } from '../benchContext'
import { PaneFrame } from '../PaneFrame'
import { useDrag } from '../useDrag'
import { CutHandle } from './CutHandle'
import { SheetRowView } from './SheetRowView'
import { useSheetRows } from './useSheetRows'

const ROW_HEIGHT = 56

/** What one row can stand for, in microseconds. */
const SCALES: readonly Micros[] = [0.1, 0.25, 0.5, 1, 2, 5, 10].map((s) => s * MICROS_PER_SECOND)

/** Room above and below the rows, for the handles of cut points at the very start and end. */
const MARGIN = 24

/** When: the recording from top to bottom, with the in and out points of the passage. */
export function SheetPane() {
  const [scale, setScale] = useState(3)
  const rowMicros = SCALES[scale] ?? MICROS_PER_SECOND
  return (
    <PaneFrame
      pane="sheet"
      digit="1"
      title="Sheet"
      tools={
        <>
          <Box sx={{ fontSize: 12, color: palette.inkSoft, whiteSpace: 'nowrap' }}>1 row = {rowMicros / MICROS_PER_SECOND} s</Box>
          <Tooltip title="More time in a row">
            <span>
              <IconButton aria-label="More time in a row" disabled={scale === SCALES.length - 1} onClick={() => setScale(scale + 1)}>
                <ZoomOutIcon sx={{ fontSize: 18 }} />
              </IconButton>
            </span>
          </Tooltip>
          <Tooltip title="Less time in a row">
            <span>
              <IconButton aria-label="Less time in a row" disabled={scale === 0} onClick={() => setScale(scale - 1)}>
                <ZoomInIcon sx={{ fontSize: 18 }} />
              </IconButton>
            </span>
          </Tooltip>
        </>
      }
    >
      <Rows key={rowMicros} rowMicros={rowMicros} />
    </PaneFrame>
  )
}

function Rows({ rowMicros }: { rowMicros: Micros }) {
  const { player, files } = useBenchContext()
  const { passage, recording } = partsOf(useEdit())
  const scroller = useRef<HTMLDivElement>(null)
  const content = useRef<HTMLDivElement>(null)
  const microsPerPixel = rowMicros / ROW_HEIGHT
  const count = Math.ceil(recording.durationMicros / rowMicros)
  const virtual = useVirtualizer({ count, getScrollElement: () => scroller.current, estimateSize: () => ROW_HEIGHT, overscan: 4, paddingStart: MARGIN, paddingEnd: MARGIN, initialOffset: () => Math.max(0, player.positionMicros / microsPerPixel - 120) })
  const items = virtual.getVirtualItems()
  const rows = useSheetRows(recording, files.get(recording.id) ?? new Blob(), rowMicros, items[0]?.index ?? 0, items.at(-1)?.index ?? 0)
  useFollow(scroller, microsPerPixel)

  const scrubbing = useDrag((event) => {
    const place = (clientY: number) => (clientY - (content.current?.getBoundingClientRect().top ?? 0) - MARGIN) * microsPerPixel
    player.seek(place(event.clientY))
    return ({ clientY }) => player.seek(place(clientY))
  })

  return (
    <Box ref={scroller} data-testid="sheet-rows" sx={{ flex: 1, minHeight: 0, overflowY: 'auto', position: 'relative', bgcolor: 'background.paper' }}>
      <Box ref={content} onPointerDown={scrubbing} sx={{ position: 'relative', height: virtual.getTotalSize(), touchAction: 'pan-y', userSelect: 'none' }}>
        {items.map(({ index, start }) => {
          const t = index * rowMicros
          return (
            <Box key={index} sx={{ position: 'absolute', left: 0, right: 0, top: 0, transform: `translateY(${start}px)` }}>
              <SheetRowView time={formatTime(t, rowMicros < MICROS_PER_SECOND ? 2 : 0)} row={rows.get(index)} height={ROW_HEIGHT} inside={t + rowMicros > passage.inMicros && t < passage.outMicros} />
            </Box>
          )
        })}
        <Box sx={{ position: 'absolute', left: 0, right: 0, top: MARGIN }}>
          <Box aria-hidden sx={{ position: 'absolute', left: 0, width: 4, top: passage.inMicros / microsPerPixel, height: (passage.outMicros - passage.inMicros) / microsPerPixel, bgcolor: palette.leaf, pointerEvents: 'none' }} />
          <CutHandle which="in" microsPerPixel={microsPerPixel} />
          <CutHandle which="out" microsPerPixel={microsPerPixel} />
          <Playhead microsPerPixel={microsPerPixel} />
        </Box>
      </Box>
    </Box>
  )
}

/** The moment being shown, as a line across. Moved without React: it changes at every display frame. */
function Playhead({ microsPerPixel }: { microsPerPixel: number }) {
  const { player } = useBenchContext()
  const line = useRef<HTMLDivElement>(null)
  const label = useRef<HTMLSpanElement>(null)
  useEffect(
    () =>
      player.onPosition((t) => {
        if (line.current) line.current.style.transform = `translateY(${t / microsPerPixel}px)`
        if (label.current) label.current.textContent = formatTime(t, 2)
      }),
    [player, microsPerPixel],
  )
  return (
    <Box ref={line} aria-hidden sx={{ position: 'absolute', left: 0, right: 0, top: 0, height: 0, borderTop: `2px solid ${palette.haw}`, pointerEvents: 'none', zIndex: 4 }}>
      <Box component="span" ref={label} sx={{ position: 'absolute', right: 0, top: -9, px: 1, bgcolor: palette.haw, color: '#fff', fontFamily: fonts.numbers, fontSize: 11, lineHeight: '16px' }} />
    </Box>
  )
}

/** Keeps the playhead in sight while playing and after a jump. */
function useFollow(scroller: RefObject<HTMLDivElement | null>, microsPerPixel: number): void {
  const { player } = useBenchContext()
  useEffect(() => {
    let last = player.positionMicros
    return player.onPosition((t) => {
      const element = scroller.current
      if (!element || t === last) return
      last = t
      const y = t / microsPerPixel + MARGIN - element.scrollTop
      if (y < 20 || y > element.clientHeight - 30) element.scrollTop = t / microsPerPixel + MARGIN - element.clientHeight * 0.3
    })
  }, [player, scroller, microsPerPixel])
}
