'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import List from '@mui/material/List'
import ListItem from '@mui/material/ListItem'
import ListItemText from '@mui/material/ListItemText'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import type { Version } from '@/core/model/version'
import { title } from '@/core/model/record'
import { outputLength } from '@/core/time/timeMap'
import { deleteVersion, keepVersion, versionsOf } from '@/store/versions'
import { formatDay, formatTime } from '@/ui/format'
import { palette, textSize } from '@/ui/theme'
import { goBackTo } from '@/edit/highlight'
import { useBenchContext, useHighlight } from './benchContext'
import { wording } from './wording'

/** Named versions of the highlight: keep the present one, go back to an older one (which can be undone). */
export function VersionsDialog({ onClose }: { onClose: () => void }) {
  const { session } = useBenchContext()
  const highlight = useHighlight()
  const versions = useLiveQuery(() => versionsOf(highlight.id), [highlight.id])
  const [name, setName] = useState('')
  const suggested = wording.version(versions?.length)
  const keep = async () => {
    const typed = title.safeParse(name)
    await keepVersion(session.value, typed.success ? typed.data : suggested)
    setName('')
  }
  const goBack = (version: Version) => {
    goBackTo(session, version)
    onClose()
  }
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>{wording.versions}</DialogTitle>
      <DialogContent>
        <Box
          component="form"
          onSubmit={(e) => {
            e.preventDefault()
            void keep()
          }}
          sx={{ display: 'flex', gap: 2, pt: 2, pb: 3 }}
        >
          <TextField
            size="small"
            fullWidth
            autoFocus
            label={wording.nameForTheHighlightAs}
            placeholder={suggested}
            value={name}
            onChange={(e) => setName(e.target.value)}
            slotProps={{ inputLabel: { shrink: true } }}
          />
          <Button type="submit" variant="contained" color="primary">
            {wording.keep}
          </Button>
        </Box>
        {versions?.length === 0 && (
          <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
            {wording.noneKeptYetUndoAlso}
          </Typography>
        )}
        <List dense disablePadding>
          {versions?.map((version) => (
            <ListItem
              key={version.id}
              disableGutters
              secondaryAction={
                <Box sx={{ display: 'flex', gap: 1 }}>
                  <Button onClick={() => goBack(version)}>{wording.goBackToIt}</Button>
                  <Button onClick={() => void deleteVersion(version.id)}>{wording.deleteIt}</Button>
                </Box>
              }
            >
              <ListItemText
                primary={version.name}
                secondary={`${formatDay(version.createdAt)}, ${new Date(version.createdAt).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })} · ${formatTime(outputLength(version.edit.highlight))}`}
                slotProps={{ primary: { noWrap: true, sx: { pr: 50 } } }}
              />
            </ListItem>
          ))}
        </List>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{wording.close}</Button>
      </DialogActions>
    </Dialog>
  )
}
