'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState, type FormEvent } from 'react'
import { MIN_SIDE, MAX_SIDE, ownShape } from '@/core/model/shape'
import { formatSize } from '@/ui/format'
import { Ticket } from '@/ui/Ticket'
import { palette, textSize } from '@/ui/theme'
import { toggleShape } from '@/edit/highlight'
import { useBenchContext } from '../benchContext'
import { wording } from './wording'

/** A shape of a size that is typed. */
export function OwnSizeTicket({ anchor, onClose }: { anchor: HTMLElement; onClose: () => void }) {
  const { session } = useBenchContext()
  const [typed, setTyped] = useState({ width: '540', height: '626' })
  const made = ownShape(Number(typed.width), Number(typed.height))
  const there = made && session.value.highlight.shapes.some((s) => s.id === made.shape.id)
  const add = (event: FormEvent) => {
    event.preventDefault()
    if (!made || there) return
    toggleShape(session, { shape: made.shape })
    onClose()
  }
  return (
    <Ticket label={wording.ownSize} anchor={anchor} onClose={onClose}>
      <Box component="form" onSubmit={add} sx={{ display: 'grid', rowGap: 2 }}>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 2 }}>
          {(['width', 'height'] as const).map((side) => (
            <TextField
              key={side}
              size="small"
              autoFocus={side === 'width'}
              label={side === 'width' ? wording.widthPx : wording.heightPx}
              value={typed[side]}
              onChange={(e) => setTyped({ ...typed, [side]: e.target.value })}
              slotProps={{ htmlInput: { inputMode: 'numeric' } }}
            />
          ))}
        </Box>
        <Box
          role="status"
          sx={{ fontSize: textSize.note, color: made && !made.rounded ? palette.inkSoft : palette.ink, minHeight: 32 }}
        >
          {!made && wording.sidesFromToPxPlease(MIN_SIDE, MAX_SIDE)}
          {made?.rounded && wording.videoNeedsEvenSidesIt(formatSize(made.shape))}
          {there && wording.thisHighlightHasThatSize}
        </Box>
        <Button type="submit" variant="contained" color="primary" disabled={!made || there === true}>
          Add {made ? formatSize(made.shape) : wording.shape}
        </Button>
      </Box>
    </Ticket>
  )
}
