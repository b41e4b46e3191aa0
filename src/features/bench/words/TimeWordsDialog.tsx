'use client'

import Alert from '@mui/material/Alert'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import Button from '@mui/material/Button'
import { useSnackbar } from 'notistack'
import { useEffect, useRef, useState } from 'react'
import { timeCues } from '@/edit/words'
import { ProgressLine } from '@/ui/ProgressLine'
import { useBenchContext, useHighlight, usePassage } from '../benchContext'
import { useAlign, type CuesOutcome } from './useAlign'
import { wording } from './wording'

/** Listens for each word of the captions that are there, and gives them its time. */
export function TimeWordsDialog({ onClose }: { onClose: () => void }) {
  const { session } = useBenchContext()
  const { words } = useHighlight()
  const { recording } = usePassage()
  const { enqueueSnackbar } = useSnackbar()
  const align = useAlign()
  const [problem, setProblem] = useState<string | null>(null)
  const begun = useRef(false)
  const own = words.cues.filter((c) => c.recordingId === recording.id && c.text.trim() !== '')
  useEffect(() => {
    // Strict mode asks twice.
    if (begun.current) return
    begun.current = true
    void align.timeCues(own).then((outcome) => {
      if (outcome.kind === 'stopped') return onClose()
      if (outcome.kind !== 'done' || outcome.timed.length === 0) return setProblem(problemOf(outcome))
      timeCues(session, { timed: outcome.timed })
      enqueueSnackbar(wording.timedWords(outcome.timed.length, own.length))
      onClose()
    })
  })
  return (
    <Dialog open onClose={problem ? onClose : undefined} maxWidth="sm" fullWidth>
      <DialogTitle>{wording.timeWords}</DialogTitle>
      <DialogContent>
        {problem ? (
          <Alert severity="error">{problem}</Alert>
        ) : (
          <ProgressLine
            words={wording.timingWords}
            share={align.share ?? 0}
            measure={wording.wordsTimedSoFar}
            stop={wording.stop}
            onStop={align.stop}
          />
        )}
      </DialogContent>
      {problem && (
        <DialogActions>
          <Button onClick={onClose}>{wording.cancel}</Button>
        </DialogActions>
      )}
    </Dialog>
  )
}

function problemOf(outcome: Exclude<CuesOutcome, { kind: 'stopped' }>): string {
  switch (outcome.kind) {
    case 'done':
      return wording.noWordWasHeard
    case 'other-language':
      return wording.onlyEnglish
    case 'failed':
      return wording.timingFailed(outcome.detail)
  }
}
