'use client'

import type { Micros } from '@/core/time/micros'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { NumberField } from '@/ui/NumberField'
import { SecondsField } from '@/ui/SecondsField'
import { strikeAll } from '@/edit/passages'
import { useBenchContext } from '../benchContext'
import { SheetBar } from './SheetBar'
import type { DeadAir } from './useDeadAir'
import { wording } from './wording'

/**
 * Finds the pauses and offers to strike them out: what counts as one, how much they come to, all at once. Single ones
 * are taken in the rows below.
 */
export function DeadAirBar({ deadAir, onClose }: { deadAir: DeadAir; onClose: () => void }) {
  const { session } = useBenchContext()
  const { settings, setSettings, pauses, savedMicros } = deadAir
  const words = pausesWords(pauses?.length ?? null, savedMicros)
  return (
    <SheetBar label={wording.deadAir}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', columnGap: 2, rowGap: 1, alignItems: 'center' }}>
        <SecondsField
          label={wording.pausesOfAtLeast}
          least={0.1}
          most={10}
          step={0.1}
          decimals={2}
          value={settings.leastMicros}
          onSet={(micros) => setSettings({ leastMicros: micros })}
        />
        <NumberField
          label={wording.quieterThan}
          unit="dB"
          least={-80}
          most={-10}
          step={1}
          value={settings.levelDb}
          onSet={(levelDb) => setSettings({ levelDb })}
        />
        <SecondsField
          label={wording.leaveABreathOf}
          least={0}
          most={2}
          step={0.02}
          decimals={2}
          value={settings.breathMicros}
          onSet={(micros) => setSettings({ breathMicros: micros })}
        />
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
        <Box role="status" sx={{ flex: 1, whiteSpace: 'nowrap' }}>
          {words}
        </Box>
        <Button onClick={onClose}>{wording.close}</Button>
        <Button
          variant="contained"
          color="primary"
          disabled={!pauses || pauses.length === 0}
          onClick={() => {
            strikeAll(session, { label: wording.strikeOutDeadAir, stretches: pauses ?? [] })
            onClose()
          }}
        >
          {wording.strikeOutAll}
        </Button>
      </Box>
    </SheetBar>
  )
}

function pausesWords(count: number | null, savedMicros: Micros): string {
  if (count === null) return wording.listening
  if (count === 0) return wording.noPausesLikeThat
  return `${count} ${count === 1 ? 'pause' : 'pauses'}, ${(savedMicros / MICROS_PER_SECOND).toFixed(2)} s`
}
