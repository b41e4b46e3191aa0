'use client'

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import Typography from '@mui/material/Typography'
import { changeWatchSettings, forgetWatched, watchNoMore, type WatchedFile, type WatchOutcome } from '@/store/watched'
import { palette, textSize } from '@/ui/theme'
import { canWriteToFolders } from '@/shared/rendering/filesFolder'
import { chooseWatchedFolder, type WatchState } from './folderWatch'
import type { Watch } from './useWatch'
import { WatchLeave } from './WatchLeave'
import { wording } from '../wording'

const OUTCOMES: Record<WatchOutcome, string> = {
  'was-there': wording.wasThereBefore,
  taking: wording.beingTakenIn,
  added: wording.onTheShelfToBe,
  'laid-out': wording.laidOut,
  rendering: wording.laidOutInTheRender,
  refused: wording.notTakenIn,
}

/** The recorder's folder: what was taken in from it, and what happens to it. */
export function WatchDialog({ watch, onClose }: { watch: Watch; onClose: () => void }) {
  const { folder, files, settings, state } = watch
  const before = files.filter((f) => f.outcome === 'was-there')
  const seenTo = files.filter((f) => f.outcome !== 'was-there')
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle>{wording.theRecordersFolder}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 4 }}>
        <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
          {canWriteToFolders() ? wording.chooseTheFolderThatYour : wording.thisBrowserCannotWatchA}
        </Typography>
        {canWriteToFolders() && (
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 3 }}>
            {folder && (
              <Typography
                sx={{
                  fontSize: textSize.lead,
                  fontWeight: 700,
                  minWidth: 0,
                  overflow: 'hidden',
                  textOverflow: 'ellipsis',
                }}
              >
                {folder.name}
              </Typography>
            )}
            <Button onClick={() => void chooseWatchedFolder()}>
              {folder ? wording.chooseAnother : wording.chooseAFolder}
            </Button>
            {folder && <Button onClick={() => void watchNoMore()}>{wording.stopWatching}</Button>}
          </Box>
        )}
        {folder && <WatchLeave state={state} />}
        {folder && (
          <>
            <FormControlLabel
              control={
                <Checkbox
                  size="small"
                  checked={settings.render}
                  onChange={(_, render) => void changeWatchSettings({ render })}
                />
              }
              label={wording.renderWhatIsLaidOut}
            />
            <Box>
              <Doing state={state} />
              <Box role="list" aria-label={wording.filesTakenIn} sx={{ maxHeight: 220, overflowY: 'auto' }}>
                {seenTo.map((file) => (
                  <FileLine key={file.name} file={file} />
                ))}
              </Box>
              {before.length > 0 && (
                <Box sx={{ display: 'flex', alignItems: 'center', gap: 3, mt: 2 }}>
                  <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
                    {wording.thereBefore(before.length)}
                  </Typography>
                  <Button onClick={() => void forgetWatched(before.map((f) => f.name))}>
                    {wording.takeInToo(before.length)}
                  </Button>
                </Box>
              )}
            </Box>
          </>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{wording.close}</Button>
      </DialogActions>
    </Dialog>
  )
}

function Doing({ state }: { state: WatchState }) {
  const words = doingWords(state)
  return (
    <Typography role="status" sx={{ fontSize: textSize.body, mb: 1, overflow: 'hidden', textOverflow: 'ellipsis' }}>
      {words}
    </Typography>
  )
}

function FileLine({ file }: { file: WatchedFile }) {
  return (
    <Box role="listitem" sx={{ borderTop: 1, borderColor: 'divider', py: 1.5 }}>
      <Box sx={{ display: 'flex', gap: 3, fontSize: textSize.body }}>
        <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {file.name}
        </Box>
        <Box sx={{ color: palette.inkSoft, flex: 'none', fontSize: textSize.note }}>{OUTCOMES[file.outcome]}</Box>
      </Box>
      {file.problem && (
        <Alert
          severity="warning"
          sx={{ mt: 1, py: 0 }}
          action={<Button onClick={() => void forgetWatched([file.name])}>{wording.tryAgain}</Button>}
        >
          {file.problem}
        </Alert>
      )}
    </Box>
  )
}

function doingWords(state: WatchState): string | null {
  if (state.kind === 'elsewhere') return wording.watchedInAnotherTab
  if (state.kind !== 'on') return null
  if (state.taking) return wording.takingIn(state.taking)
  return state.growing.length > 0 ? wording.beingWritten(state.growing.join(', ')) : wording.nothingIsBeingWritten
}
