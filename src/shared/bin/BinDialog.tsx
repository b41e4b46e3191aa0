'use client'

import { explain } from '@/diagnostics/note'
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import List from '@mui/material/List'
import ListItem from '@mui/material/ListItem'
import ListItemText from '@mui/material/ListItemText'
import { useLiveQuery } from 'dexie-react-hooks'
import { useRef, useState } from 'react'
import { binItems, deleteForGood, putBack, type BinItem } from '@/store/bin'
import { formatBytes } from '@/ui/format'
import { textSize } from '@/ui/theme'

const WHAT: Record<BinItem['kind'], string> = {
  recording: 'recording',
  highlight: 'highlight',
  render: 'finished file',
}

/** What was thrown away: each to be taken out again, or all of it deleted for good. */
export function BinDialog({ onClose }: { onClose: () => void }) {
  const items = useLiveQuery(binItems, [])
  const [deleting, setDeleting] = useState<readonly BinItem[] | null>(null)
  const content = useRef<HTMLDivElement>(null)
  /** The button that has the focus goes with its line: keys stay in the dialog, from before it goes. */
  const stay = () => content.current?.focus()
  if (!items) return null
  return (
    <>
      <Dialog open onClose={onClose} fullWidth maxWidth="sm">
        <DialogTitle>Bin</DialogTitle>
        <DialogContent ref={content} tabIndex={-1} sx={{ '&:focus-visible': { outline: 'none', boxShadow: 'none' } }}>
          {items.length === 0 && 'The bin is empty.'}
          <List dense disablePadding>
            {items.map((item) => (
              <ListItem
                key={item.id}
                disableGutters
                secondaryAction={
                  <Box sx={{ display: 'flex', gap: 1 }}>
                    <Button aria-label={`Delete ${item.name}`} onClick={() => setDeleting([item])}>
                      Delete…
                    </Button>
                    <Button
                      aria-label={`Put back ${item.name}`}
                      onClick={() => {
                        stay()
                        void putBack(item)
                      }}
                    >
                      Put back
                    </Button>
                  </Box>
                }
              >
                <ListItemText
                  primary={item.name}
                  secondary={factsOf(item)}
                  slotProps={{
                    primary: { noWrap: true, title: item.name, sx: { pr: 44 } },
                    secondary: { sx: { pr: 44 } },
                  }}
                />
              </ListItem>
            ))}
          </List>
        </DialogContent>
        <DialogActions>
          {items.length > 0 && (
            <Button onClick={() => setDeleting(items)}>
              Empty the bin{bytesOf(items) > 0 && ` (${formatBytes(bytesOf(items))})`}…
            </Button>
          )}
          <Box sx={{ flex: 1 }} />
          <Button onClick={onClose}>Close</Button>
        </DialogActions>
      </Dialog>
      {deleting && (
        <DeleteDialog
          items={deleting}
          onClose={() => {
            setDeleting(null)
            stay()
          }}
        />
      )}
    </>
  )
}

const bytesOf = (items: readonly BinItem[]) => items.reduce((sum, item) => sum + item.sizeBytes, 0)

function factsOf(item: BinItem): string {
  const size = item.sizeBytes > 0 ? ` · ${formatBytes(item.sizeBytes)}` : ''
  const usedBy = item.kind === 'recording' && item.usedBy > 0 ? ` · ${highlights(item.usedBy)} cut from it` : ''
  return `${WHAT[item.kind]}${size}${usedBy}`
}

const highlights = (n: number) => `${n} ${n === 1 ? 'highlight' : 'highlights'}`

/** The one thing here that cannot be undone is asked about. */
function DeleteDialog({ items, onClose }: { items: readonly BinItem[]; onClose: () => void }) {
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  const [only] = items.length === 1 ? items : []
  const cutFrom = items.reduce((sum, item) => sum + (item.kind === 'recording' ? item.usedBy : 0), 0)
  const remove = async () => {
    setBusy(true)
    try {
      await deleteForGood(items)
      onClose()
    } catch (error) {
      setProblem(`Not everything could be deleted: ${explain('emptying the bin', error)}. Try again.`)
      setBusy(false)
    }
  }
  return (
    <Dialog open onClose={busy ? undefined : onClose} maxWidth="xs" fullWidth>
      <DialogTitle>{only ? `Delete “${only.name}” for good?` : `Delete all ${items.length} for good?`}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 3, fontSize: textSize.lead, overflowWrap: 'anywhere' }}>
        <Box>This {bytesOf(items) > 0 && `gives back ${formatBytes(bytesOf(items))} and `}cannot be undone.</Box>
        {cutFrom > 0 && (
          <Box>
            {highlights(cutFrom)} on the Shelf {cutFrom === 1 ? 'is' : 'are'} cut from what is deleted, and will ask for
            the file again.
          </Box>
        )}
        {problem && <Alert severity="error">{problem}</Alert>}
      </DialogContent>
      <DialogActions>
        <Button disabled={busy} onClick={onClose}>
          Keep
        </Button>
        <Button variant="contained" color="error" disabled={busy} onClick={() => void remove()}>
          Delete for good
        </Button>
      </DialogActions>
    </Dialog>
  )
}
