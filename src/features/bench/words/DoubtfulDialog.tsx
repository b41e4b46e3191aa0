'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import List from '@mui/material/List'
import ListItem from '@mui/material/ListItem'
import TextField from '@mui/material/TextField'
import { useMemo, useRef } from 'react'
import { doubtfulPlaces, type Doubt, type Doubtful } from '@/core/words/doubtful'
import { formatTime } from '@/ui/format'
import { fonts, palette, textSize } from '@/ui/theme'
import { setCueText } from '@/edit/words'
import { useBenchContext, useHighlight } from '../benchContext'

/** Places in the captions that are likely to be wrong, each to be put right where it is listed. */
export function DoubtfulDialog({ onClose }: { onClose: () => void }) {
  const { cues } = useHighlight().words
  const places = useMemo(() => doubtfulPlaces(cues), [cues])
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>
        {places.length === 0
          ? 'Nothing looks doubtful'
          : `${places.length} ${places.length === 1 ? 'place' : 'places'} to look at`}
      </DialogTitle>
      <DialogContent>
        {places.length === 0 && (
          <Box sx={{ color: palette.inkSoft }}>
            No word is said twice in a row, none is nearly but not quite one that is said often, and every line can be
            read in its time.
          </Box>
        )}
        <List dense aria-label="Places to look at">
          {places.map((place, i) => (
            <Place key={`${place.cue.id} ${i}`} place={place} />
          ))}
        </List>
      </DialogContent>
      <DialogActions>
        <Button variant="contained" color="primary" onClick={onClose}>
          Done
        </Button>
      </DialogActions>
    </Dialog>
  )
}

function Place({ place: { cue, doubt } }: { place: Doubtful }) {
  const { session } = useBenchContext()
  const gesture = useRef(crypto.randomUUID())
  return (
    <ListItem
      disableGutters
      sx={{ display: 'grid', gridTemplateColumns: '64px minmax(0, 1fr)', columnGap: 2, alignItems: 'center' }}
    >
      <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.note, color: palette.inkSoft }}>
        {formatTime(cue.fromMicros)}
      </Box>
      <TextField
        size="small"
        multiline
        aria-label="Caption"
        label={doubtWords(doubt, cue.text)}
        value={cue.text}
        onChange={(e) => setCueText(session, { id: cue.id, text: e.target.value }, gesture.current)}
        slotProps={{ inputLabel: { shrink: true } }}
      />
    </ListItem>
  )
}

function doubtWords(doubt: Doubt, text: string): string {
  switch (doubt.why) {
    case 'twice':
      return `“${text.slice(doubt.token.from, doubt.token.to)}” twice in a row`
    case 'alike':
      return `“${text.slice(doubt.token.from, doubt.token.to)}”, or “${doubt.usual}”?`
    case 'garbled':
      return `“${text.slice(doubt.token.from, doubt.token.to)}” looks garbled`
    case 'empty':
      return 'Nothing is written here yet'
    case 'fast':
      return `${Math.round(doubt.perSecond)} characters a second: too fast to read`
  }
}
