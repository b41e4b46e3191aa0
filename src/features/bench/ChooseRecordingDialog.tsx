'use client'

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import List from '@mui/material/List'
import ListItem from '@mui/material/ListItem'
import ListItemButton from '@mui/material/ListItemButton'
import ListItemText from '@mui/material/ListItemText'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import type { Passage } from '@/core/model/passage'
import { recordingsOnShelf } from '@/store/recordings'
import { formatLength, formatVideo } from '@/ui/format'
import { chooseFiles } from '@/shared/recordings/chosenFiles'
import { useHighlight } from './benchContext'
import { useBringIn, type BroughtIn } from './useBringIn'
import { wording } from './wording'

/** Chooses another recording: one on the Shelf, or a file that is put there. `onChosen` gets a passage of it. */
export function ChooseRecordingDialog({
  title,
  onChosen,
  onClose,
}: {
  title: string
  onChosen: (passage: Passage) => void
  onClose: () => void
}) {
  const { bringIn, bringInFile } = useBringIn()
  const highlight = useHighlight()
  const [problem, setProblem] = useState<string | null>(null)
  const recordings = useLiveQuery(recordingsOnShelf, [])

  const done = (brought: BroughtIn) => {
    setProblem(brought.ok ? null : brought.problem)
    if (!brought.ok) return
    onChosen(brought.passage)
    onClose()
  }
  const choose = async () => {
    const [chosen] = await chooseFiles(false)
    if (chosen) done(await bringInFile(chosen))
  }

  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>{title}</DialogTitle>
      <DialogContent>
        {problem && (
          <Alert severity="error" sx={{ mb: 2 }}>
            {problem}
          </Alert>
        )}
        <List dense disablePadding>
          {recordings?.map((recording) => (
            <ListItem key={recording.id} disablePadding>
              <ListItemButton onClick={() => void bringIn(recording).then(done)} sx={{ borderRadius: 1 }}>
                <ListItemText
                  primary={recording.name}
                  secondary={`${formatLength(recording.durationMicros)} · ${formatVideo(recording.video)}${highlight.passages.some((p) => p.recordingId === recording.id) ? wording.alreadyInThisHighlight : ''}`}
                  slotProps={{ primary: { noWrap: true } }}
                />
              </ListItemButton>
            </ListItem>
          ))}
        </List>
        <Box sx={{ mt: 2 }}>
          <Button onClick={() => void choose()}>{wording.chooseAnotherFile}</Button>
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{wording.notNow}</Button>
      </DialogActions>
    </Dialog>
  )
}
