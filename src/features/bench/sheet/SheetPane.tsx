'use client'

import AddIcon from '@mui/icons-material/Add'
import ZoomInIcon from '@mui/icons-material/ZoomIn'
import ZoomOutIcon from '@mui/icons-material/ZoomOut'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import Tooltip from '@mui/material/Tooltip'
import { useSnackbar } from 'notistack'
import { useState, type ReactNode } from 'react'
import type { Passage } from '@/core/model/passage'
import { oneFrame } from '@/core/cut/passages'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { iconSize, palette, textSize } from '@/ui/theme'
import { addPassages } from '@/edit/passages'
import { droppedFiles, type ChosenFile } from '@/shared/recordings/chosenFiles'
import { useBenchContext, useFootage, usePassage, useView } from '../benchContext'
import { PaneFrame } from '../PaneFrame'
import { AddPassagesDialog } from './AddPassagesDialog'
import { BedsDialog } from './BedsDialog'
import { ChangesBar } from './ChangesBar'
import { DeadAirBar } from './DeadAirBar'
import { SheetRows } from './SheetRows'
import { useBringIn } from '../useBringIn'
import { CaptionsMenu } from '../words/CaptionsMenu'
import { useCutting } from './useCutting'
import { useDeadAir } from './useDeadAir'
import { wording } from './wording'

/** What one row can stand for, in microseconds of output; before these comes a single frame. */
const SCALES: readonly Micros[] = [0.1, 0.25, 0.5, 1, 2, 5, 10].map((s) => s * MICROS_PER_SECOND)

/** One second a row. */
const FIRST_SCALE = 4

/** When: the highlight from top to bottom, passage by passage. */
export function SheetPane() {
  const { session, view, player } = useBenchContext()
  const edit = useFootage()
  const { recording } = usePassage()
  const [scale, setScale] = useState(FIRST_SCALE)
  const [open, setOpen] = useState<'dead-air' | 'beds' | 'add' | null>(null)
  const deadAir = useDeadAir(edit, open === 'dead-air')
  const scales = [oneFrame(recording), ...SCALES]
  const rowMicros = scales[scale] ?? MICROS_PER_SECOND
  const { split, strike } = useCutting()
  const marked = useView((v) => v.stretch !== null)
  const asksChanges = useView((v) => v.asksChanges)
  const [over, setOver] = useState(false)
  const { bringInFile } = useBringIn()
  const { enqueueSnackbar } = useSnackbar()
  /** After the passage that is worked on; the last of them is then worked on, so that the next one comes after it. */
  const add = (passages: readonly Passage[]) => {
    if (passages.length > 0) player.seek(addPassages(session, passages, view.getState().passageId))
  }
  const addDropped = async (files: ChosenFile[]) => {
    const passages: Passage[] = []
    for (const chosen of files) {
      const brought = await bringInFile(chosen)
      if (brought.ok) passages.push(brought.passage)
      else enqueueSnackbar(brought.problem, { variant: 'error', autoHideDuration: 12_000 })
    }
    add(passages)
  }
  const close = () => setOpen(null)
  return (
    <PaneFrame
      pane="sheet"
      digit="1"
      title={wording.sheet}
      tools={
        <>
          <Box sx={{ fontSize: textSize.note, color: palette.inkSoft, whiteSpace: 'nowrap' }}>
            {scale === 0 ? wording.n1Row1Frame : wording.n1RowS(rowMicros, MICROS_PER_SECOND)}
          </Box>
          <Tool
            name={wording.moreTimeInARow}
            disabled={scale === scales.length - 1}
            onClick={() => setScale(scale + 1)}
          >
            <ZoomOutIcon sx={{ fontSize: iconSize.medium }} />
          </Tool>
          <Tool name={wording.lessTimeInARow} disabled={scale === 0} onClick={() => setScale(scale - 1)}>
            <ZoomInIcon sx={{ fontSize: iconSize.medium }} />
          </Tool>
        </>
      }
    >
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          gap: 1,
          px: 2.5,
          py: 1.5,
          borderBottom: 1,
          borderColor: 'divider',
          flex: 'none',
          flexWrap: 'wrap',
          '& .MuiButton-root': { px: 1.5, minWidth: 0 },
        }}
      >
        <Button startIcon={<AddIcon />} onClick={() => setOpen('add')}>
          {wording.passageCapital}
        </Button>
        <Button onClick={() => setOpen('beds')}>
          {wording.music}
          {edit.highlight.beds.length > 0 && ` ${edit.highlight.beds.length}`}
        </Button>
        <CaptionsMenu />
        <Button onClick={split}>{wording.split}</Button>
        <Button disabled={!marked} onClick={strike}>
          {wording.strikeOut}
        </Button>
        <Button aria-pressed={open === 'dead-air'} onClick={() => setOpen(open === 'dead-air' ? null : 'dead-air')}>
          {wording.deadAir}
        </Button>
        <Button
          aria-pressed={asksChanges === 'yes'}
          onClick={() => view.setState({ asksChanges: asksChanges === 'yes' ? 'no' : 'yes' })}
        >
          {wording.scenes}
        </Button>
      </Box>
      <ChangesBar />
      {open === 'dead-air' && <DeadAirBar deadAir={deadAir} onClose={close} />}
      <Box
        onDragOver={(e) => {
          if (!e.dataTransfer.types.includes('Files')) return
          e.preventDefault()
          setOver(true)
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(e) => {
          e.preventDefault()
          setOver(false)
          void droppedFiles(e.dataTransfer.items).then(addDropped)
        }}
        sx={{
          flex: 1,
          minHeight: 0,
          display: 'flex',
          flexDirection: 'column',
          outline: over ? `3px solid ${palette.leaf}` : 'none',
          outlineOffset: -3,
        }}
      >
        <SheetRows rowMicros={rowMicros} pauses={open === 'dead-air' ? (deadAir.pauses ?? []) : []} />
      </Box>
      {open === 'beds' && <BedsDialog onClose={close} />}
      {open === 'add' && <AddPassagesDialog onChosen={add} onClose={close} />}
    </PaneFrame>
  )
}

function Tool({
  name,
  disabled,
  onClick,
  children,
}: {
  name: string
  disabled: boolean
  onClick: () => void
  children: ReactNode
}) {
  return (
    <Tooltip title={name}>
      <span>
        <IconButton aria-label={name} disabled={disabled} onClick={onClick}>
          {children}
        </IconButton>
      </span>
    </Tooltip>
  )
}
