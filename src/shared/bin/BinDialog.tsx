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
import { wording } from './wording'

const WHAT: Record<BinItem['kind'], string> = {
  recording: 'recording',
  highlight: 'highlight',
  render: wording.finishedFile,
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
        <DialogTitle>{wording.bin}</DialogTitle>
        <DialogContent ref={content} tabIndex={-1} sx={{ '&:focus-visible': { outline: 'none', boxShadow: 'none' } }}>
          {items.length === 0 && wording.theBinIsEmpty}
          <List dense disablePadding>
            {items.map((item) => (
              <ListItem
                key={item.id}
                disableGutters
                secondaryAction={
                  <Box sx={{ display: 'flex', gap: 1 }}>
                    <Button aria-label={wording.deleteItOfName(item.name)} onClick={() => setDeleting([item])}>
                      {wording.deleteIt}
                    </Button>
                    <Button
                      aria-label={wording.putBackOfName(item.name)}
                      onClick={() => {
                        stay()
                        void putBack(item)
                      }}
                    >
                      {wording.putBack}
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
              {wording.emptyTheBin}
              {bytesOf(items) > 0 && ` (${formatBytes(bytesOf(items))})`}…
            </Button>
          )}
          <Box sx={{ flex: 1 }} />
          <Button onClick={onClose}>{wording.close}</Button>
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
      setProblem(wording.notEverythingCouldBeDeleted(explain('emptying the bin', error)))
      setBusy(false)
    }
  }
  return (
    <Dialog open onClose={busy ? undefined : onClose} maxWidth="xs" fullWidth>
      <DialogTitle>{only ? wording.deleteForGood(only.name) : wording.deleteAllForGood(items.length)}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 3, fontSize: textSize.lead, overflowWrap: 'anywhere' }}>
        <Box>
          {wording.thisIt}
          {bytesOf(items) > 0 && wording.givesBackAnd(formatBytes(bytesOf(items)))}
          {wording.cannotBeUndone}
        </Box>
        {cutFrom > 0 && <Box>{wording.onTheShelfCutFrom(highlights(cutFrom), cutFrom)}</Box>}
        {problem && <Alert severity="error">{problem}</Alert>}
      </DialogContent>
      <DialogActions>
        <Button disabled={busy} onClick={onClose}>
          {wording.keep}
        </Button>
        <Button variant="contained" color="error" disabled={busy} onClick={() => void remove()}>
          {wording.deleteForGoodCapital}
        </Button>
      </DialogActions>
    </Dialog>
  )
}
