'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import Link from '@mui/material/Link'
import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect, useState } from 'react'
import { usedBytes } from '@/store/bin'
import {
  changePreviewSettings,
  previewCopyBytes,
  readPreviewSettings,
  removePreviewCopies,
} from '@/store/previewCopies'
import { formatBytes } from '@/ui/format'
import { NumberField } from '@/ui/NumberField'
import { fonts, palette, textSize } from '@/ui/theme'
import { wording } from './wording'

const ASKED_EVERY_MS = 10_000

/** How much room what is kept takes, and how much is left; opens what can be done about it. */
export function StorageRoom() {
  const [isOpen, setOpen] = useState(false)
  const used = useLiveQuery(usedBytes, [])
  const free = useFreeBytes()
  if (used === undefined) return null
  return (
    <>
      <Link
        component="button"
        type="button"
        title={wording.copiesOfRecordingsAndFinished}
        aria-haspopup="dialog"
        onClick={() => setOpen(true)}
        sx={{ font: 'inherit', fontSize: textSize.note, color: palette.inkSoft, whiteSpace: 'nowrap' }}
      >
        {wording.used(formatBytes(used))}
        {free !== null && wording.aboutFree(formatBytes(free))}
      </Link>
      {isOpen && <StorageDialog used={used} onClose={() => setOpen(false)} />}
    </>
  )
}

const MIB = 2 ** 20
const MOST_MIB = 64 * 1024

/** What takes room, and how much preview copies may take. */
function StorageDialog({ used, onClose }: { used: number; onClose: () => void }) {
  const copies = useLiveQuery(previewCopyBytes, []) ?? 0
  const settings = useLiveQuery(readPreviewSettings, [])
  return (
    <Dialog open onClose={onClose} maxWidth="xs" fullWidth>
      <DialogTitle>{wording.storageHere}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 3 }}>
        <Amount name={wording.recordingsAndFiles} bytes={used} />
        <Amount name={wording.previewCopies} bytes={copies} />
        <Box sx={{ fontSize: textSize.body, color: palette.inkSoft }}>{wording.previewCopiesMean}</Box>
        {settings && (
          <NumberField
            label={wording.roomForPreviewCopies}
            value={Math.round(settings.maxBytes / MIB)}
            unit="MB"
            least={0}
            most={MOST_MIB}
            step={64}
            decimals={0}
            onSet={(mib) => void changePreviewSettings({ maxBytes: Math.round(mib) * MIB })}
          />
        )}
      </DialogContent>
      <DialogActions>
        <Button disabled={copies === 0} onClick={() => void removePreviewCopies()}>
          {wording.deletePreviewCopies}
        </Button>
        <Button onClick={onClose}>{wording.close}</Button>
      </DialogActions>
    </Dialog>
  )
}

function Amount({ name, bytes }: { name: string; bytes: number }) {
  return (
    <Box sx={{ display: 'flex', justifyContent: 'space-between', fontSize: textSize.body }}>
      <span>{name}</span>
      <Box component="span" sx={{ fontFamily: fonts.numbers }}>
        {formatBytes(bytes)}
      </Box>
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
