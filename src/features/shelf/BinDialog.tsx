'use client'

import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import List from '@mui/material/List'
import ListItem from '@mui/material/ListItem'
import ListItemText from '@mui/material/ListItemText'
import { binHighlight } from '@/store/highlights'
import { binRecording } from '@/store/recordings'
import type { Shelf } from './useShelf'

/** What was thrown away, each to be taken out again. */
export function BinDialog({ bin, open, onClose }: { bin: Shelf['bin']; open: boolean; onClose: () => void }) {
  const items = [
    ...bin.recordings.map((r) => ({ id: r.id, name: r.name, what: 'recording', restore: () => binRecording(r.id, false) })),
    ...bin.highlights.map((h) => ({ id: h.id, name: h.name, what: 'highlight', restore: () => binHighlight(h.id, false) })),
  ]
  return (
    <Dialog open={open} onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle sx={{ fontSize: 16, fontWeight: 700 }}>Bin</DialogTitle>
      <DialogContent>
        {items.length === 0 && 'The bin is empty.'}
        <List dense disablePadding>
          {items.map(({ id, name, what, restore }) => (
            <ListItem key={id} disableGutters secondaryAction={<Button onClick={() => void restore()}>Put back</Button>}>
              <ListItemText primary={name} secondary={what} slotProps={{ primary: { noWrap: true, sx: { pr: 16 } } }} />
            </ListItem>
          ))}
        </List>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  )
}
