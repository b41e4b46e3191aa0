'use client'

import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useEffect, useState } from 'react'
import { palette } from '@/ui/theme'

const FAULTS = { none: 'takes everything', offline: 'cannot be reached', busy: 'is too busy', 'too-large': 'says: too large', refused: 'refuses', 'signed-out': 'says: sign in again' } as const
type Fault = keyof typeof FAULTS

const ADDRESS = '/api/stand-in/outlet/posts'

/** Says that nothing goes out, and lets the stand-in fail as real ones do, for trying out. */
export function StandInBar() {
  const [fault, setFault] = useState<Fault>('none')
  const [taken, setTaken] = useState<number | null>(null)
  useEffect(() => {
    let live = true
    const ask = () =>
      fetch(ADDRESS)
        .then((r) => r.json() as Promise<{ fault: Fault; posts: unknown[] }>)
        .then((now) => live && (setFault(now.fault), setTaken(now.posts.length)), () => live && setTaken(null))
    void ask()
    const timer = setInterval(() => void ask(), 5000)
    return () => {
      live = false
      clearInterval(timer)
    }
  }, [])
  const change = async (to: Fault) => {
    setFault(to)
    await fetch(ADDRESS, { method: 'PUT', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ fault: to }) }).catch(() => {})
  }
  return (
    <Box role="note" sx={{ display: 'flex', alignItems: 'center', gap: 3, px: 4.5, py: 2.5, borderBottom: 1, borderColor: 'divider', bgcolor: '#F6EBD3' }}>
      <Typography sx={{ fontSize: 13, color: palette.strawInk, flex: 1 }}>
        <strong>Stand-in.</strong> No real outlet is connected: what is due is sent to a stand-in on this machine, which notes it down and throws the file away.{taken !== null && ` It has taken ${taken}.`}
      </Typography>
      <TextField select size="small" label="The stand-in" value={fault} onChange={(e) => void change(e.target.value as Fault)} sx={{ width: 190, bgcolor: palette.sheet }}>
        {Object.entries(FAULTS).map(([id, name]) => (
          <MenuItem key={id} value={id}>
            {name}
          </MenuItem>
        ))}
      </TextField>
    </Box>
  )
}
