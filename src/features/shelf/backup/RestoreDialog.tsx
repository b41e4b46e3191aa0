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
import { wording } from '../wording'

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
        words: wording.putBack(count(added, 'record'), changed, stayed),
      })
    } catch (error) {
      const why = whyNot(error)
      setSaid({ bad: true, words: wording.theBackupCouldNotBe(why) })
    } finally {
      setBusy(false)
    }
  }
  return (
    <Dialog open onClose={busy ? undefined : onClose} fullWidth maxWidth="xs">
      <DialogTitle>{wording.putABackupBack}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 3 }}>
        {read && !read.ok && <Alert severity="error">{unreadMessage(file.name, read.reason)}</Alert>}
        {!read && <LinearProgress variant="determinate" value={share * 100} aria-label={wording.howMuchOfTheBackup} />}
        {opened && !opened.ok && <Alert severity="error">{zipRefusal(file.name, opened.reason, opened.detail)}</Alert>}
        {opened?.ok && (
          <>
            <Typography sx={{ fontSize: textSize.lead }}>
              {wording.ofIt(
                formatDay(opened.madeAt),
                count(opened.records.recording.length, 'recording'),
                count(opened.records.highlight.length, 'highlight'),
              )}
              {opened.records.render.length > 0 && `, ${count(opened.records.render.length, wording.finishedFile)}`}.
            </Typography>
            {opened.unread > 0 && (
              <Alert severity="warning">{wording.inItCannotBeRead(count(opened.unread, 'record'))}</Alert>
            )}
            {!said && (
              <RadioGroup
                aria-label={wording.howToPutItBack}
                value={mode}
                onChange={(_, value) => setMode(value as RestoreMode)}
              >
                <FormControlLabel value="add" control={<Radio size="small" />} label={wording.addWhatIsMissingHere} />
                <FormControlLabel
                  value="as-it-was"
                  control={<Radio size="small" />}
                  label={wording.makeEverythingInItAs}
                />
              </RadioGroup>
            )}
          </>
        )}
        {busy && <LinearProgress aria-label={wording.puttingItBack} />}
        {said && <Alert severity={said.bad ? 'error' : 'success'}>{said.words}</Alert>}
      </DialogContent>
      <DialogActions>
        <Button disabled={busy} onClick={onClose}>
          {said ? wording.close : wording.leaveIt}
        </Button>
        {!said && (
          <Button variant="contained" color="primary" disabled={!opened?.ok || busy} onClick={() => void restore()}>
            {wording.putBackCapital}
          </Button>
        )}
      </DialogActions>
    </Dialog>
  )
}

const count = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`

function whyNot(error: unknown): string {
  if (isStorageFull(error)) return wording.thereIsNoRoomFor
  return explain('putting a backup back', error)
}
