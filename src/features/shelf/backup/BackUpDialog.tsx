'use client'

import { explain } from '@/diagnostics/note'
import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import LinearProgress from '@mui/material/LinearProgress'
import Typography from '@mui/material/Typography'
import { useLiveQuery } from 'dexie-react-hooks'
import { useRef, useState } from 'react'
import { formatBytes } from '@/ui/format'
import { offerDownload } from '@/ui/offerDownload'
import { palette, textSize } from '@/ui/theme'
import { backUpShelf, backUpSizes, type BackUpWish } from './backUp'
import { wording } from '../wording'

/** The whole Shelf and Rack as one file. */
export function BackUpDialog({ onClose }: { onClose: () => void }) {
  const sizes = useLiveQuery(backUpSizes, [])
  const [wish, setWish] = useState<BackUpWish>({ recordings: true, finished: false })
  const [share, setShare] = useState<number | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [done, setDone] = useState<{ sizeBytes: number; missing: string[] } | null>(null)
  const stop = useRef<AbortController | null>(null)
  const make = async () => {
    const controller = new AbortController()
    stop.current = controller
    setProblem(null)
    setDone(null)
    setShare(0)
    try {
      const { file, missing } = await backUpShelf(wish, setShare, controller.signal)
      offerDownload(file, `brimble shelf ${new Date().toISOString().slice(0, 10)}.zip`)
      setDone({ sizeBytes: file.size, missing })
    } catch (error) {
      if (!controller.signal.aborted) setProblem(wording.theBackupCouldNotBeWritten(explain('writing a backup', error)))
    } finally {
      setShare(null)
    }
  }
  const needed = sizes && (wish.recordings ? sizes.recordings : 0) + (wish.finished ? sizes.finished : 0)
  return (
    <Dialog open onClose={share === null ? onClose : undefined} fullWidth maxWidth="xs">
      <DialogTitle>{wording.backUpTheShelf}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 3 }}>
        <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
          {wording.oneFileWithEveryRecordings}
        </Typography>
        <div>
          <FormControlLabel
            disabled={share !== null}
            control={
              <Checkbox
                size="small"
                checked={wish.recordings}
                onChange={(_, recordings) => setWish({ ...wish, recordings })}
              />
            }
            label={wording.withTheRecordings(ofSize(sizes?.recordings))}
          />
          <FormControlLabel
            disabled={share !== null}
            control={
              <Checkbox
                size="small"
                checked={wish.finished}
                onChange={(_, finished) => setWish({ ...wish, finished })}
              />
            }
            label={wording.withTheFinishedFilesAnd(ofSize(sizes?.finished))}
          />
        </div>
        {!wish.recordings && (
          <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
            {wording.withoutThemEachRecordingHas}
          </Typography>
        )}
        {share !== null && (
          <LinearProgress variant="determinate" value={share * 100} aria-label={wording.howMuchIsBackedUp} />
        )}
        {problem && <Alert severity="error">{problem}</Alert>}
        {done && (
          <Alert severity={done.missing.length > 0 ? 'warning' : 'success'}>
            {wording.backedUp(formatBytes(done.sizeBytes))}
            {done.missing.length > 0 &&
              wording.notInItBecauseThe(
                done.missing
                  .slice(0, 5)
                  .map((m) => `“${m}”`)
                  .join(', '),
                done.missing.length,
              )}
          </Alert>
        )}
      </DialogContent>
      <DialogActions>
        {share === null ? (
          <Button onClick={onClose}>{wording.close}</Button>
        ) : (
          <Button onClick={() => stop.current?.abort()}>{wording.cancel}</Button>
        )}
        <Button variant="contained" color="primary" disabled={share !== null || !sizes} onClick={() => void make()}>
          {backUpWords(share, needed)}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

const ofSize = (bytes: number | undefined) => {
  if (bytes === undefined) return ''
  return bytes === 0 ? wording.noneYet : `, ${formatBytes(bytes)}`
}

function backUpWords(share: number | null, neededBytes: number | undefined): string {
  if (share !== null) return `${Math.round(share * 100)} %`
  return neededBytes ? wording.backUpAbout(formatBytes(neededBytes)) : wording.backUp
}
