'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import Typography from '@mui/material/Typography'
import { useEffect, useState } from 'react'
import type { Entry } from '@/diagnostics/entry'
import { clearRing, MAX_ENTRIES, readRing, ringAsText, watchEntries, withEntry } from '@/diagnostics/ring'
import { offerDownload } from '@/ui/offerDownload'
import { fonts, palette, textSize } from '@/ui/theme'
import { wording } from './wording'

/** What went wrong lately on this machine, to be looked at, saved or cleared. */
export function DiagnosticsDialog({ onClose }: { onClose: () => void }) {
  const [entries, setEntries] = useState<readonly Entry[]>([])
  useEffect(() => {
    setEntries(readRing())
    return watchEntries((entry) => setEntries((known) => withEntry(known, entry)))
  }, [])
  const save = () => offerDownload(new Blob([ringAsText(entries)], { type: 'text/plain' }), 'brimble diagnostics.txt')
  const clear = () => {
    clearRing()
    setEntries([])
  }
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth>
      <DialogTitle>{wording.diagnostics}</DialogTitle>
      <DialogContent>
        <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft, mb: 3 }}>
          {wording.errorsOnThisMachineThe(MAX_ENTRIES)}
        </Typography>
        {entries.length === 0 && (
          <Typography sx={{ fontSize: textSize.body }}>{wording.nothingHasGoneWrong}</Typography>
        )}
        <Box
          component="ol"
          aria-label={wording.errors}
          tabIndex={0}
          sx={{ m: 0, p: 0, maxHeight: '50dvh', overflowY: 'auto' }}
        >
          {entries.toReversed().map((entry) => (
            <EntryLine key={entry.id} entry={entry} />
          ))}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={clear} disabled={entries.length === 0}>
          {wording.clear}
        </Button>
        <Button onClick={save} disabled={entries.length === 0}>
          {wording.saveAsText}
        </Button>
        <Button onClick={onClose}>{wording.close}</Button>
      </DialogActions>
    </Dialog>
  )
}

function EntryLine({ entry: { at, where, name, message, stack } }: { entry: Entry }) {
  return (
    <Box component="li" sx={{ listStyle: 'none', borderTop: 1, borderColor: 'divider', py: 2 }}>
      <Box sx={{ display: 'flex', gap: 3, fontSize: textSize.body }}>
        <Box
          component="time"
          dateTime={at}
          sx={{ fontFamily: fonts.numbers, fontSize: textSize.note, color: palette.inkSoft }}
        >
          {new Date(at).toLocaleString()}
        </Box>
        <Box sx={{ fontWeight: 600 }}>{where}</Box>
      </Box>
      <Box sx={{ fontSize: textSize.body, overflowWrap: 'anywhere' }}>
        {name}: {message}
      </Box>
      {stack !== '' && (
        <Box
          component="pre"
          sx={{
            m: 0,
            mt: 1,
            fontFamily: fonts.numbers,
            fontSize: textSize.small,
            color: palette.inkSoft,
            whiteSpace: 'pre-wrap',
          }}
        >
          {stack}
        </Box>
      )}
    </Box>
  )
}
