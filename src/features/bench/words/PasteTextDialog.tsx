'use client'

import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogContentText from '@mui/material/DialogContentText'
import DialogTitle from '@mui/material/DialogTitle'
import LinearProgress from '@mui/material/LinearProgress'
import TextField from '@mui/material/TextField'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { MAX_CUE_LENGTH } from '@/core/model/words'
import { setCues } from '@/edit/words'
import { useBenchContext, usePassage } from '../benchContext'
import { useAlign } from './useAlign'
import { wording } from './wording'

/** Half an hour of talking. */
const MAX_TEXT = 40_000

/** A text that somebody has already, lined up with the speech that is heard. */
export function PasteTextDialog({ onClose }: { onClose: () => void }) {
  const { session } = useBenchContext()
  const { recording } = usePassage()
  const { timeText, share, stop } = useAlign()
  const { enqueueSnackbar } = useSnackbar()
  const [text, setText] = useState('')
  const [state, setState] = useState<'asking' | 'listening' | 'silent'>('asking')
  const lineUp = async () => {
    setState('listening')
    const timed = await timeText(text)
    if (!('pieces' in timed)) return setState(timed.outcome === 'silent' ? 'silent' : 'asking')
    setCues(session, {
      recordingId: recording.id,
      loose: timed.pieces.map((l) => ({ ...l, text: l.text.slice(0, MAX_CUE_LENGTH), voice: null })),
      label: wording.pasteCaptions,
    })
    enqueueSnackbar(
      timed.outcome === 'done' ? wording.wordsHeard(timed.heard, timed.all) : wording.linedUpOnly[timed.outcome],
    )
    onClose()
  }
  return (
    <Dialog open onClose={state === 'listening' ? undefined : onClose} maxWidth="sm" fullWidth>
      <DialogTitle>{wording.whatIsSaidIn(recording.name)}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 3 }}>
        <DialogContentText>{wording.pasteTheTextOfWhat}</DialogContentText>
        <TextField
          multiline
          minRows={7}
          maxRows={14}
          autoFocus
          label={wording.text}
          value={text}
          onChange={(e) => setText(e.target.value)}
          slotProps={{ htmlInput: { maxLength: MAX_TEXT } }}
        />
        {state === 'listening' && (
          <LinearProgress
            aria-label={wording.wordsTimedSoFar}
            variant={share === null ? 'indeterminate' : 'determinate'}
            value={(share ?? 0) * 100}
          />
        )}
        {state === 'silent' && (
          <DialogContentText role="alert" color="error">
            {wording.nobodyIsHeardSpeakingHere}
          </DialogContentText>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={state === 'listening' ? stop : onClose}>
          {state === 'listening' ? wording.stop : wording.cancel}
        </Button>
        <Button
          variant="contained"
          color="primary"
          disabled={text.trim() === '' || state === 'listening'}
          onClick={() => void lineUp()}
        >
          {state === 'listening' ? wording.listening : wording.lineUp}
        </Button>
      </DialogActions>
    </Dialog>
  )
}
