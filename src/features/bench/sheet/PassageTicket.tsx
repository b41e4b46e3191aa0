'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import { framesPerSecond } from '@/core/time/frameRate'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import type { PlacedPassage } from '@/core/time/timeMap'
import { recordingOf } from '@/core/model/edit'
import { NumberField } from '@/ui/NumberField'
import { SecondsField } from '@/ui/SecondsField'
import { Ticket } from '@/ui/Ticket'
import {
  duplicatePassage,
  movePassage,
  removePassage,
  setPictureClock,
  setSound,
  setSpeed,
  slipPassage,
  trimPassage,
} from '@/edit/passages'
import { newId, type PassageId } from '@/core/model/ids'
import { useBenchContext, useFootage } from '../benchContext'
import { textSize } from '@/ui/theme'
import { wording } from './wording'

/** A passage's exact numbers: cut points, slip, speed, sound. */
export function PassageTicket({
  placed,
  count,
  anchor,
  onClose,
}: {
  placed: PlacedPassage
  count: number
  anchor: HTMLElement
  onClose: () => void
}) {
  const { session } = useBenchContext()
  const { passage, index } = placed
  const { id, inMicros, outMicros, sound } = passage
  const { video, durationMicros } = recordingOf(useFootage(), passage.recordingId)
  const frame = 1 / framesPerSecond(video.frameRate)
  const whole = durationMicros / MICROS_PER_SECOND
  const fade = (end: 'fadeInMicros' | 'fadeOutMicros', label: string) => (
    <SecondsField
      label={label}
      least={0}
      most={30}
      step={0.1}
      decimals={2}
      value={sound[end]}
      onSet={(micros, gesture) => setSound(session, { id, part: { [end]: micros } }, gesture)}
    />
  )
  const leave = (action: () => void) => () => {
    onClose()
    action()
  }
  return (
    <Ticket label={wording.numbersOfPassage(index)} anchor={anchor} onClose={onClose}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', columnGap: 3, rowGap: 1.5, alignItems: 'center' }}>
        <SecondsField
          label={wording.inPoint}
          least={0}
          most={whole}
          step={frame}
          decimals={3}
          value={inMicros}
          onSet={(micros, gesture) => trimPassage(session, { id, which: 'in', t: micros }, gesture)}
        />
        <SecondsField
          label={wording.outPoint}
          least={0}
          most={whole}
          step={frame}
          decimals={3}
          value={outMicros}
          onSet={(micros, gesture) => trimPassage(session, { id, which: 'out', t: micros }, gesture)}
        />
        <SecondsField
          label={wording.slipToStartAt}
          least={0}
          most={Math.max(0, whole - (outMicros - inMicros) / MICROS_PER_SECOND)}
          step={frame}
          decimals={3}
          value={inMicros}
          onSet={(micros, gesture) => slipPassage(session, { id, by: micros - inMicros }, gesture)}
        />
        <NumberField
          label={wording.speed}
          unit="%"
          least={25}
          most={400}
          step={5}
          value={passage.speedPercent}
          onSet={(percent, gesture) => setSpeed(session, { id, percent }, gesture)}
        />
        <NumberField
          label={wording.level}
          unit="dB"
          least={-60}
          most={24}
          step={0.5}
          decimals={1}
          value={sound.gainDb}
          disabled={sound.muted}
          onSet={(gainDb, gesture) => setSound(session, { id, part: { gainDb } }, gesture)}
        />
        {fade('fadeInMicros', wording.fadeIn)}
        {fade('fadeOutMicros', wording.fadeOut)}
      </Box>
      <FormControlLabel
        sx={{ my: 1 }}
        control={
          <Checkbox
            size="small"
            checked={sound.muted}
            onChange={(_, muted) => setSound(session, { id, part: { muted } }, crypto.randomUUID())}
          />
        }
        label={wording.muted}
        slotProps={{ typography: { sx: { fontSize: textSize.note } } }}
      />
      {passage.picture && (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 2, fontSize: textSize.note }}>
          <Box sx={{ flex: 1 }}>
            {wording.itsPictureRunsByItself(
              passage.picture.speedPercent,
              (passage.picture.inMicros / MICROS_PER_SECOND).toFixed(2),
            )}
          </Box>
          <Button onClick={() => setPictureClock(session, { id, picture: null })}>{wording.withItsSound}</Button>
        </Box>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5 }}>
        <Button onClick={leave(() => duplicatePassage(session, { id, newId: newId<PassageId>() }))}>
          {wording.duplicate}
        </Button>
        <Button disabled={count === 1} onClick={leave(() => removePassage(session, { id }))}>
          {wording.removeCapital}
        </Button>
        <Button disabled={index === 0} onClick={leave(() => movePassage(session, { from: index, to: index - 1 }))}>
          {wording.moveUp}
        </Button>
        <Button
          disabled={index === count - 1}
          onClick={leave(() => movePassage(session, { from: index, to: index + 1 }))}
        >
          {wording.moveDown}
        </Button>
      </Box>
    </Ticket>
  )
}
