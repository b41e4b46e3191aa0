'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { useMemo, useState } from 'react'
import { findText } from '@/core/words/cueEdits'
import { palette, textSize } from '@/ui/theme'
import { replaceAll } from '@/edit/words'
import { useBenchContext, useHighlight } from '../benchContext'
import { wording } from './wording'

/** Places shown before the rest are only counted. */
const MAX_SHOWN = 40

/** The same mistake in many captions, put right at once. */
export function FindTextDialog({ onClose }: { onClose: () => void }) {
  const { session } = useBenchContext()
  const { words } = useHighlight()
  const [wanted, setWanted] = useState('')
  const [replacement, setReplacement] = useState('')
  const [wholeWords, setWholeWords] = useState(true)
  const matches = useMemo(() => findText(words.cues, wanted.trim(), wholeWords), [words.cues, wanted, wholeWords])
  const textOf = (id: string) => words.cues.find((c) => c.id === id)?.text ?? ''
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>{wording.findAndReplaceInCaptions}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 3, '&&': { pt: 1 } }}>
        <TextField
          autoFocus
          size="small"
          label={wording.find}
          value={wanted}
          onChange={(e) => setWanted(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <TextField
          size="small"
          label={wording.putInItsPlace}
          value={replacement}
          onChange={(e) => setReplacement(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <FormControlLabel
          control={<Checkbox size="small" checked={wholeWords} onChange={(_, whole) => setWholeWords(whole)} />}
          label={wording.wholeWords}
        />
        <Box role="status" sx={{ fontSize: textSize.note, color: palette.inkSoft }}>
          {placesWords(wanted, matches.length)}
        </Box>
        <Box
          component="ul"
          aria-label={wording.whereItStands}
          sx={{ m: 0, pl: 4, maxHeight: 220, overflowY: 'auto', fontSize: textSize.body }}
        >
          {matches.slice(0, MAX_SHOWN).map(({ cueId, from, to }) => (
            <li key={`${cueId} ${from}`}>
              {textOf(cueId).slice(0, from)}
              <mark>{textOf(cueId).slice(from, to)}</mark>
              {textOf(cueId).slice(to)}
            </li>
          ))}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{wording.close}</Button>
        <Button
          variant="contained"
          color="primary"
          disabled={matches.length === 0}
          onClick={() => replaceAll(session, { found: matches, replacement })}
        >
          {wording.replace(matches.length)}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

function placesWords(wanted: string, places: number): string {
  if (wanted.trim() === '') return wording.nothingLookedForYet
  return places === 0 ? wording.nowhere : `${places} ${places === 1 ? 'place' : 'places'}`
}
