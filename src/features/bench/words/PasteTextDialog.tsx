'use client'

import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogContentText from '@mui/material/DialogContentText'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { MAX_CUE_LENGTH } from '@/core/model/words'
import { lineUpText } from '@/core/words/lineUpText'
import { setCues } from '@/edit/words'
import { useBenchContext, usePassage } from '../benchContext'
import { useSpeechHere } from './useSpeechHere'

/** Half an hour of talking. */
const MAX_TEXT = 40_000

/** A text that somebody has already, lined up with the speech that is heard. */
export function PasteTextDialog({ onClose }: { onClose: () => void }) {
  const { session } = useBenchContext()
  const { recording } = usePassage()
  const listen = useSpeechHere()
  const [text, setText] = useState('')
  const [state, setState] = useState<'asking' | 'listening' | 'silent'>('asking')
  const lineUp = async () => {
    setState('listening')
    const lined = lineUpText(text, await listen())
    if (lined.length === 0) return setState('silent')
    setCues(session, {
      recordingId: recording.id,
      loose: lined.map((l) => ({ ...l, text: l.text.slice(0, MAX_CUE_LENGTH), words: [], voice: null })),
      label: 'Paste captions',
    })
    onClose()
  }
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>What is said in “{recording.name}”</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 3 }}>
        <DialogContentText>
          Paste the text of what this highlight plays. It is lined up with where somebody is heard speaking; what does
          not fit is moved on the Sheet.
        </DialogContentText>
        <TextField
          multiline
          minRows={7}
          maxRows={14}
          autoFocus
          label="Text"
          value={text}
          onChange={(e) => setText(e.target.value)}
          slotProps={{ htmlInput: { maxLength: MAX_TEXT } }}
        />
        {state === 'silent' && (
          <DialogContentText role="alert" color="error">
            Nobody is heard speaking here, so there is nothing to line it up with.
          </DialogContentText>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          color="primary"
          disabled={text.trim() === '' || state === 'listening'}
          onClick={() => void lineUp()}
        >
          {state === 'listening' ? 'Listening…' : 'Line up'}
        </Button>
      </DialogActions>
    </Dialog>
  )
}
