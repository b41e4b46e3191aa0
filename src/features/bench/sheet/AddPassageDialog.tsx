'use client'

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import List from '@mui/material/List'
import ListItemButton from '@mui/material/ListItemButton'
import ListItemText from '@mui/material/ListItemText'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import type { Recording } from '@/core/model/recording'
import { passagePartsFor } from '@/store/highlights'
import { recordingsOnShelf, storedFile } from '@/store/recordings'
import { formatLength, formatVideo } from '@/ui/format'
import { addChosenFile } from '../../shelf/addRecordings'
import { chooseFiles } from '../../shelf/chosenFiles'
import { probeMessage } from '../../shelf/messages'
import { useBenchContext, useEdit } from '../benchContext'
import { insertPassage } from './cuts'

/** Chooses the recording that the next passage comes from: one on the Shelf, or a file that is put there. */
export function AddPassageDialog({ onClose }: { onClose: () => void }) {
  const { session, player, view, files } = useBenchContext()
  const { highlight } = useEdit()
  const [problem, setProblem] = useState<string | null>(null)
  const recordings = useLiveQuery(recordingsOnShelf, [])

  const take = async (recording: Recording) => {
    const found = await storedFile(recording.id)
    if (!found.ok) return setProblem(found.reason === 'needs-permission' ? `The browser wants your permission to read “${recording.fileName}” again: open one of its highlights first.` : `“${recording.fileName}” is missing. Open one of its highlights and choose the file again.`)
    files.set(recording.id, found.file)
    const { passage, setup, layout } = await passagePartsFor(session.value, recording)
    session.extend((draft) => {
      if (!draft.recordings.some((r) => r.id === recording.id)) draft.recordings.push(recording)
      if (setup) draft.setups.push(setup)
      if (layout) draft.layouts.push(layout)
    })
    const opened = await player.open(session.value, files)
    if (!opened.ok) return setProblem(`“${opened.fileName}” can no longer be read.`)
    insertPassage(session, passage, view.getState().passageId)
    onClose()
  }
  const choose = async () => {
    const [chosen] = await chooseFiles(false)
    if (!chosen) return
    const added = await addChosenFile(chosen)
    if (added.ok) await take(added.recording)
    else setProblem(probeMessage(added.fileName, added.failure))
  }

  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle sx={{ fontSize: 16, fontWeight: 700, pb: 1 }}>Add a passage after this one</DialogTitle>
      <DialogContent>
        {problem && (
          <Alert severity="error" sx={{ mb: 2 }}>
            {problem}
          </Alert>
        )}
        <List dense disablePadding>
          {recordings?.map((recording) => (
            <ListItemButton key={recording.id} onClick={() => void take(recording)} sx={{ borderRadius: 1 }}>
              <ListItemText primary={recording.name} secondary={`${formatLength(recording.durationMicros)} · ${formatVideo(recording.video)}${highlight.passages.some((p) => p.recordingId === recording.id) ? ' · already in this highlight' : ''}`} slotProps={{ primary: { noWrap: true } }} />
            </ListItemButton>
          ))}
        </List>
        <Box sx={{ mt: 2 }}>
          <Button onClick={() => void choose()}>Choose another file</Button>
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Not now</Button>
      </DialogActions>
    </Dialog>
  )
}
