'use client'

import { useEffect, useState } from 'react'
import { StandInNote } from '@/ui/StandInNote'
import { wording } from '../wording'

const FAULTS = {
  none: wording.takesEverything,
  offline: wording.cannotBeReached,
  busy: wording.isTooBusy,
  'too-large': wording.saysTooLarge,
  refused: 'refuses',
  'signed-out': wording.saysSignInAgain,
} as const
type Fault = keyof typeof FAULTS

const ADDRESS = '/api/stand-in/outlet/posts'

/** Says over the week that nothing goes out. */
export function StandInBar() {
  const [fault, setFault] = useState<Fault>('none')
  const [taken, setTaken] = useState<number | null>(null)
  useEffect(() => {
    let live = true
    const ask = () =>
      fetch(ADDRESS)
        .then((r) => r.json() as Promise<{ fault: Fault; posts: unknown[] }>)
        .then(
          (now) => live && (setFault(now.fault), setTaken(now.posts.length)),
          () => live && setTaken(null),
        )
    void ask()
    const timer = setInterval(() => void ask(), 5000)
    return () => {
      live = false
      clearInterval(timer)
    }
  }, [])
  const change = async (to: Fault) => {
    setFault(to)
    await fetch(ADDRESS, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ fault: to }),
    }).catch(() => {})
  }
  return (
    <StandInNote faults={FAULTS} fault={fault} onFault={(to) => void change(to)}>
      {wording.noRealOutletIsConnected}
      {taken !== null && wording.itHasTaken(taken)}
    </StandInNote>
  )
}
