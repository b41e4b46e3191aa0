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
import { wording } from './wording'

/** Places in the captions that are likely to be wrong, each to be put right where it is listed. */
export function DoubtfulDialog({ onClose }: { onClose: () => void }) {
  const { cues } = useHighlight().words
  const places = useMemo(() => doubtfulPlaces(cues), [cues])
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>{places.length === 0 ? wording.nothingLooksDoubtful : wording.toLookAt(places.length)}</DialogTitle>
      <DialogContent>
        {places.length === 0 && <Box sx={{ color: palette.inkSoft }}>{wording.noWordIsSaidTwice}</Box>}
        <List dense aria-label={wording.placesToLookAt}>
          {places.map((place, i) => (
            <Place key={`${place.cue.id} ${i}`} place={place} />
          ))}
        </List>
      </DialogContent>
      <DialogActions>
        <Button variant="contained" color="primary" onClick={onClose}>
          {wording.done}
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
        aria-label={wording.captionCapital}
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
      return wording.twiceInARow(text.slice(doubt.token.from, doubt.token.to))
    case 'alike':
      return wording.or(text.slice(doubt.token.from, doubt.token.to), doubt.usual)
    case 'unsure':
      return wording.notSure(text.slice(doubt.token.from, doubt.token.to))
    case 'garbled':
      return wording.looksGarbled(text.slice(doubt.token.from, doubt.token.to))
    case 'empty':
      return wording.nothingIsWrittenHereYet
    case 'fast':
      return wording.charactersASecondTooFast(Math.round(doubt.perSecond))
  }
}
