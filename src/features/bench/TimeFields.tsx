'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { NumberField } from '@/ui/NumberField'
import { useBenchContext } from './benchContext'
import { wording } from './wording'

/** Nothing that is put on is on for less: a frame or two nobody sees. */
const MIN_MICROS = MICROS_PER_SECOND / 10

interface TimeFieldsProps {
  /** Output time; null for the highlight's own start or end. */
  fromMicros: Micros | null
  toMicros: Micros | null
  onSet: (change: { fromMicros?: Micros | null; toMicros?: Micros | null }, gesture?: string) => void
}

/** From when to when something is on: in numbers, or from and to where the playhead stands. */
export function TimeFields({ fromMicros, toMicros, onSet }: TimeFieldsProps) {
  const { player } = useBenchContext()
  const length = player.lengthMicros
  const from = fromMicros ?? 0
  const to = toMicros ?? length
  const setFrom = (t: Micros, gesture?: string) =>
    onSet({ fromMicros: t <= 0 ? null : Math.round(Math.min(t, to - MIN_MICROS)) }, gesture)
  const setTo = (t: Micros, gesture?: string) =>
    onSet({ toMicros: t >= length ? null : Math.round(Math.max(t, from + MIN_MICROS)) }, gesture)
  return (
    <Box
      role="group"
      aria-label={wording.whenItIsOn}
      sx={{
        display: 'grid',
        gridTemplateColumns: 'auto auto 1fr',
        columnGap: 2,
        rowGap: 1,
        alignItems: 'center',
        justifyItems: 'start',
      }}
    >
      <NumberField
        label={wording.from}
        unit="s"
        least={0}
        most={length / MICROS_PER_SECOND}
        step={0.1}
        decimals={1}
        value={from / MICROS_PER_SECOND}
        onSet={(s, gesture) => setFrom(s * MICROS_PER_SECOND, gesture)}
      />
      <Button onClick={() => setFrom(player.positionMicros)}>{wording.fromHere}</Button>
      <NumberField
        label={wording.upTo}
        unit="s"
        least={0}
        most={length / MICROS_PER_SECOND}
        step={0.1}
        decimals={1}
        value={to / MICROS_PER_SECOND}
        onSet={(s, gesture) => setTo(s * MICROS_PER_SECOND, gesture)}
      />
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button onClick={() => setTo(player.positionMicros)}>{wording.upToHere}</Button>
        {(fromMicros !== null || toMicros !== null) && (
          <Button onClick={() => onSet({ fromMicros: null, toMicros: null })}>{wording.allAlong}</Button>
        )}
      </Box>
    </Box>
  )
}
