'use client'

import { useEffect, useState } from 'react'
import { StandInNote } from '@/ui/StandInNote'
import { wording } from '../wording'

const FAULTS = {
  none: 'answers',
  offline: wording.cannotBeReached,
  busy: wording.isTooBusy,
  'signed-out': wording.saysSignInAgain,
  'breaks-off': wording.breaksOffHalfWay,
} as const
type Fault = keyof typeof FAULTS

const ADDRESS = '/api/stand-in/clips/fault'

/** Says over the clips that no real host is connected. */
export function ClipStandIn({ onChanged }: { onChanged: () => void }) {
  const [fault, setFault] = useState<Fault>('none')
  useEffect(() => {
    void fetch(ADDRESS)
      .then((r) => r.json() as Promise<{ fault: Fault }>)
      .then(
        (now) => setFault(now.fault),
        () => {},
      )
  }, [])
  const change = async (to: Fault) => {
    setFault(to)
    await fetch(ADDRESS, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ fault: to }),
    }).catch(() => {})
    onChanged()
  }
  return (
    <StandInNote inDialog faults={FAULTS} fault={fault} onFault={(to) => void change(to)}>
      {wording.noRealHostIsConnected}
    </StandInNote>
  )
}
