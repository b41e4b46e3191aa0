'use client'

import Box from '@mui/material/Box'
import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect, useState } from 'react'
import { usedBytes } from '@/store/bin'
import { formatBytes } from '@/ui/format'
import { palette, textSize } from '@/ui/theme'
import { wording } from './wording'

const ASKED_EVERY_MS = 10_000

/** How much room what is kept takes, and how much is left. */
export function StorageRoom() {
  const used = useLiveQuery(usedBytes, [])
  const free = useFreeBytes()
  if (used === undefined) return null
  return (
    <Box
      component="span"
      title={wording.copiesOfRecordingsAndFinished}
      sx={{ fontSize: textSize.note, color: palette.inkSoft, whiteSpace: 'nowrap' }}
    >
      {wording.used(formatBytes(used))}
      {free !== null && wording.aboutFree(formatBytes(free))}
    </Box>
  )
}

/** What the browser says it would still keep; null where it does not say. */
function useFreeBytes(): number | null {
  const [free, setFree] = useState<number | null>(null)
  useEffect(() => {
    let live = true
    const ask = () =>
      void navigator.storage?.estimate?.().then(
        ({ quota, usage }) =>
          live && setFree(quota === undefined || usage === undefined ? null : Math.max(0, quota - usage)),
        () => {},
      )
    ask()
    const timer = setInterval(ask, ASKED_EVERY_MS)
    return () => {
      live = false
      clearInterval(timer)
    }
  }, [])
  return free
}
