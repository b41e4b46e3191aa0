'use client'

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import type { Leapfrog, ShortShot } from '@/core/cut/leapfrog'
import { direction, easing } from '@/core/model/join'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { SecondsField } from '@/ui/SecondsField'
import { palette, textSize } from '@/ui/theme'
import { nameForRole } from '@/core/model/region'
import { applyLeapfrog } from '@/edit/layouts'
import { mendShortShots, setOwnPicture, shortShotsOf } from '@/edit/passages'
import { useBenchContext, useEdit, useParts } from '../benchContext'
import { EASING_NAMES } from '../sheet/JoinStrip'
import { wording } from './wording'

const BANDS = {
  2: [wording.upperBand, wording.lowerBand],
  3: [wording.upperBand, wording.middleBand, wording.lowerBand],
} as const

/** Fewer shots have nothing to leap over. */
export const MIN_SHOTS = 3

/** Shots that take turns in bands: how many bands, how they move, and which shots are too short for it. */
export function LeapfrogDialog({ onClose }: { onClose: () => void }) {
  const { session } = useBenchContext()
  const edit = useEdit()
  const { setup } = useParts()
  const [how, setHow] = useState<Leapfrog>({
    bands: 2,
    role: 'whole',
    directions: ['left', 'right', 'left'],
    lengthMicros: 400_000,
    easing: 'soft',
  })
  const { passages } = edit.highlight
  const short = shortShotsOf(edit, how)
  const mendable = short.filter((s) => s.slipMicros !== null || s.speedPercent !== null)
  const set = (change: Partial<Leapfrog>) => setHow({ ...how, ...change })
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>{wording.leapfrog}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 3 }}>
        <Box sx={{ fontSize: textSize.body, color: palette.inkSoft }}>{wording.passagesTakeTurnsInThe}</Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 3 }}>
          <TextField
            select
            size="small"
            label={wording.bands}
            value={how.bands}
            onChange={(e) => set({ bands: Number(e.target.value) === 3 ? 3 : 2 })}
          >
            <MenuItem value={2}>{wording.two}</MenuItem>
            <MenuItem value={3}>{wording.three}</MenuItem>
          </TextField>
          <TextField
            select
            size="small"
            label={wording.eachShows}
            value={how.role}
            onChange={(e) => set({ role: e.target.value })}
          >
            {[...new Set(['whole', ...setup.regions.map((r) => r.role)])].map((role) => (
              <MenuItem key={role} value={role}>
                {nameForRole(role)}
              </MenuItem>
            ))}
          </TextField>
          {BANDS[how.bands].map((words, band) => (
            <TextField
              key={words}
              select
              size="small"
              label={wording.moves(words)}
              value={how.directions[band] ?? 'up'}
              onChange={(e) => set({ directions: how.directions.with(band, direction.parse(e.target.value)) })}
            >
              {direction.options.map((d) => (
                <MenuItem key={d} value={d}>
                  {d}
                </MenuItem>
              ))}
            </TextField>
          ))}
          <TextField
            select
            size="small"
            label={wording.movement}
            value={how.easing}
            onChange={(e) => set({ easing: easing.parse(e.target.value) })}
          >
            {easing.options.map((e) => (
              <MenuItem key={e} value={e}>
                {EASING_NAMES[e]}
              </MenuItem>
            ))}
          </TextField>
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', alignItems: 'center' }}>
            <SecondsField
              label={wording.lengthOfAPush}
              least={0.04}
              most={2}
              step={0.04}
              decimals={2}
              value={how.lengthMicros}
              onSet={(micros) => set({ lengthMicros: micros })}
            />
          </Box>
        </Box>
        {mendable.length > 1 && (
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 3, fontSize: textSize.body }}>
            <Box sx={{ flex: 1 }}>{wording.shotsAreTooShortTheir(mendable.length)}</Box>
            <Button onClick={() => mendShortShots(session, { shots: short })}>
              {wording.putAllRight(mendable.length)}
            </Button>
          </Box>
        )}
        {short.length === 0 ? (
          <Alert severity="success">{wording.everyShotLastsUntilIt}</Alert>
        ) : (
          short.map((shot) => (
            <ShortShotAlert
              key={shot.passageId}
              shot={shot}
              number={passages.findIndex((p) => p.id === shot.passageId) + 1}
            />
          ))
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{wording.notNow}</Button>
        <Button
          variant="contained"
          color="primary"
          onClick={() => {
            applyLeapfrog(session, how)
            onClose()
          }}
        >
          {wording.layOutShots(passages.length)}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

function ShortShotAlert({
  shot: { passageId, missingFrames, slipMicros, speedPercent },
  number,
}: {
  shot: ShortShot
  number: number
}) {
  const { session } = useBenchContext()
  return (
    <Alert severity="warning" sx={{ '& .MuiAlert-message': { width: '100%' } }}>
      {wording.passageLacksToStayUntil(number, missingFrames, slipMicros, speedPercent)}
      <Box sx={{ display: 'flex', gap: 2, mt: 1 }}>
        {slipMicros !== null && (
          <Button onClick={() => setOwnPicture(session, { id: passageId, change: { slipMicros } })}>
            {wording.showFromSEarlierOn((-slipMicros / MICROS_PER_SECOND).toFixed(2))}
          </Button>
        )}
        {speedPercent !== null && (
          <Button onClick={() => setOwnPicture(session, { id: passageId, change: { speedPercent } })}>
            {wording.pictureAt(speedPercent)}
          </Button>
        )}
      </Box>
    </Alert>
  )
}
