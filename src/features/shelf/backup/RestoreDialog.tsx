'use client'

import { explain } from '@/diagnostics/note'
import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import LinearProgress from '@mui/material/LinearProgress'
import Radio from '@mui/material/Radio'
import RadioGroup from '@mui/material/RadioGroup'
import Typography from '@mui/material/Typography'
import { useEffect, useState } from 'react'
import { proxy } from 'comlink'
import type { BackupOpened } from '@/media/bundle/backupFile'
import { readForeign, type ForeignRead } from '@/media/read/readForeign'
import type { RestoreMode } from '@/store/backup'
import { isStorageFull } from '@/store/database'
import { formatDay } from '@/ui/format'
import { unreadMessage } from '@/shared/foreignFiles'
import { zipRefusal } from '../bringInWork'
import { restoreShelf } from './backUp'
import { textSize } from '@/ui/theme'

/** What a backup holds, and how it is put back. */
export function RestoreDialog({ file, onClose }: { file: File; onClose: () => void }) {
  const [read, setRead] = useState<ForeignRead<BackupOpened> | null>(null)
  const [share, setShare] = useState(0)
  const [mode, setMode] = useState<RestoreMode>('add')
  const [busy, setBusy] = useState(false)
  const [said, setSaid] = useState<{ words: string; bad: boolean } | null>(null)
  useEffect(() => {
    let live = true
    const onProgress = (getsOn: () => void) => (now: number) => {
      getsOn()
      if (live) setShare(now)
    }
    void readForeign(file, (reader, getsOn) => reader.backup(file, proxy(onProgress(getsOn)))).then(
      (result) => live && setRead(result),
    )
    return () => {
      live = false
    }
  }, [file])
  const opened = read?.ok ? read.value : null
  const restore = async () => {
    if (!opened?.ok) return
    setBusy(true)
    try {
      const { added, changed, stayed } = await restoreShelf(opened, mode)
      setSaid({
        bad: false,
        words: `${count(added, 'record')} put back${changed > 0 ? `, ${changed} made as they were` : ''}${stayed > 0 ? `, ${stayed} left as they are now` : ''}.`,
      })
    } catch (error) {
      const why = whyNot(error)
      setSaid({ bad: true, words: `The backup could not be put back: ${why}. Nothing was changed.` })
    } finally {
      setBusy(false)
    }
  }
  return (
    <Dialog open onClose={busy ? undefined : onClose} fullWidth maxWidth="xs">
      <DialogTitle>Put a backup back</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 3 }}>
        {read && !read.ok && <Alert severity="error">{unreadMessage(file.name, read.reason)}</Alert>}
        {!read && (
          <LinearProgress variant="determinate" value={share * 100} aria-label="How much of the backup is read" />
        )}
        {opened && !opened.ok && <Alert severity="error">{zipRefusal(file.name, opened.reason, opened.detail)}</Alert>}
        {opened?.ok && (
          <>
            <Typography sx={{ fontSize: textSize.lead }}>
              Of {formatDay(opened.madeAt)}: {count(opened.records.recording.length, 'recording')},{' '}
              {count(opened.records.highlight.length, 'highlight')}
              {opened.records.render.length > 0 && `, ${count(opened.records.render.length, 'finished file')}`}.
            </Typography>
            {opened.unread > 0 && (
              <Alert severity="warning">
                {count(opened.unread, 'record')} in it cannot be read and will be left out.
              </Alert>
            )}
            {!said && (
              <RadioGroup
                aria-label="How to put it back"
                value={mode}
                onChange={(_, value) => setMode(value as RestoreMode)}
              >
                <FormControlLabel
                  value="add"
                  control={<Radio size="small" />}
                  label="Add what is missing here; what is here stays as it is"
                />
                <FormControlLabel
                  value="as-it-was"
                  control={<Radio size="small" />}
                  label="Make everything in it as it was; highlights changed since are kept as versions"
                />
              </RadioGroup>
            )}
          </>
        )}
        {busy && <LinearProgress aria-label="Putting it back" />}
        {said && <Alert severity={said.bad ? 'error' : 'success'}>{said.words}</Alert>}
      </DialogContent>
      <DialogActions>
        <Button disabled={busy} onClick={onClose}>
          {said ? 'Close' : 'Leave it'}
        </Button>
        {!said && (
          <Button variant="contained" color="primary" disabled={!opened?.ok || busy} onClick={() => void restore()}>
            Put back
          </Button>
        )}
      </DialogActions>
    </Dialog>
  )
}

const count = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`

function whyNot(error: unknown): string {
  if (isStorageFull(error)) return 'there is no room for it in the browser’s storage'
  return explain('putting a backup back', error)
}
