'use client'

import { useEffect, useState } from 'react'
import { StandInNote } from '@/ui/StandInNote'

const FAULTS = {
  none: 'takes everything',
  offline: 'cannot be reached',
  busy: 'is too busy',
  'too-large': 'says: too large',
  refused: 'refuses',
  'signed-out': 'says: sign in again',
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
      No real outlet is connected: what is due is sent to a stand-in on this machine, which notes it down and throws the
      file away.{taken !== null && ` It has taken ${taken}.`}
    </StandInNote>
  )
}
