'use client'

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import List from '@mui/material/List'
import FormControlLabel from '@mui/material/FormControlLabel'
import ListItem from '@mui/material/ListItem'
import ListSubheader from '@mui/material/ListSubheader'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import type { Passage } from '@/core/model/passage'
import type { Recording } from '@/core/model/recording'
import { FIRST_CUT_MICROS } from '@/store/highlights'
import { recordingsOnShelf } from '@/store/recordings'
import { keptMoments } from '@/store/spottings'
import { formatLength, formatTime, formatVideo } from '@/ui/format'
import { palette } from '@/ui/theme'
import { chooseFiles } from '@/shared/recordings/chosenFiles'
import { useBringIn, type BroughtIn, type CutSpan } from '../useBringIn'
import { wording } from './wording'

/** A stretch of a recording that can be added. */
interface Offer {
  key: string
  recording: Recording
  span: CutSpan
  words: string
}

/**
 * What a recording offers: all of it where it is short, else the moments that were kept of it and, said so, its first
 * minute.
 */
function offersOf(recording: Recording, moments: readonly (CutSpan & { label: string })[]): Offer[] {
  const { id, durationMicros, video } = recording
  const offer = (span: CutSpan, words: string): Offer => ({
    key: `${id} ${span.inMicros} ${span.outMicros}`,
    recording,
    span,
    words,
  })
  const times = ({ inMicros, outMicros }: CutSpan) => `${formatTime(inMicros, 0)} – ${formatTime(outMicros, 0)}`
  const kept = moments.map((m) => offer(m, `${times(m)}${m.label && ` · ${m.label}`}`))
  const short = durationMicros <= FIRST_CUT_MICROS
  const start = {
    inMicros: video.firstFrameMicros,
    outMicros: short ? durationMicros : video.firstFrameMicros + FIRST_CUT_MICROS,
  }
  return [
    ...kept,
    offer(start, short ? wording.allOfIt(formatLength(durationMicros)) : wording.itsFirstMinute(times(start))),
  ]
}

/**
 * Chooses what is added after the passage that is worked on, in the order in which it is chosen: stretches of
 * recordings on the Shelf, or of files that are put there. `onChosen` gets a passage of each.
 */
export function AddPassagesDialog({
  onChosen,
  onClose,
}: {
  onChosen: (passages: readonly Passage[]) => void
  onClose: () => void
}) {
  const { bringIn, bringInFile } = useBringIn()
  const [chosen, setChosen] = useState<readonly Offer[]>([])
  const [problems, setProblems] = useState<readonly string[]>([])
  const [busy, setBusy] = useState(false)
  const recordings = useLiveQuery(recordingsOnShelf, [])
  const moments = useLiveQuery(keptMoments, [])
  const toggle = (offer: Offer) =>
    setChosen((all) =>
      all.some((o) => o.key === offer.key) ? all.filter((o) => o.key !== offer.key) : [...all, offer],
    )
  const bring = async (all: readonly (() => Promise<BroughtIn>)[]) => {
    setBusy(true)
    const passages: Passage[] = []
    const failed: string[] = []
    for (const one of all) {
      const brought = await one()
      if (brought.ok) passages.push(brought.passage)
      else failed.push(brought.problem)
    }
    onChosen(passages)
    setBusy(false)
    setProblems(failed)
    if (failed.length === 0) onClose()
  }
  const chooseFile = async () => {
    const files = await chooseFiles(true)
    if (files.length > 0) await bring(files.map((file) => () => bringInFile(file)))
  }
  return (
    <Dialog open onClose={busy ? undefined : onClose} maxWidth="sm" fullWidth>
      <DialogTitle>{wording.addPassagesAfterThisOne}</DialogTitle>
      <DialogContent>
        {problems.map((problem) => (
          <Alert key={problem} severity="error" sx={{ mb: 2 }}>
            {problem}
          </Alert>
        ))}
        <List dense disablePadding>
          {recordings?.map((recording) => (
            <li key={recording.id}>
              <List
                dense
                disablePadding
                subheader={
                  <ListSubheader
                    sx={{ lineHeight: 1.6, pt: 1, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
                  >{`${recording.name} · ${formatLength(recording.durationMicros)} · ${formatVideo(recording.video)}`}</ListSubheader>
                }
              >
                {offersOf(recording, moments?.get(recording.id) ?? []).map((offer) => (
                  <OfferRow
                    key={offer.key}
                    offer={offer}
                    place={chosen.findIndex((o) => o.key === offer.key) + 1}
                    onToggle={() => toggle(offer)}
                  />
                ))}
              </List>
            </li>
          ))}
        </List>
        <Box sx={{ mt: 2 }}>
          <Button disabled={busy} onClick={() => void chooseFile()}>
            {wording.chooseOtherFiles}
          </Button>
        </Box>
      </DialogContent>
      <DialogActions>
        <Button disabled={busy} onClick={onClose}>
          {wording.notNow}
        </Button>
        <Button
          variant="contained"
          color="primary"
          disabled={busy || chosen.length === 0}
          onClick={() =>
            void bring(
              chosen.map(
                ({ recording, span }) =>
                  () =>
                    bringIn(recording, span),
              ),
            )
          }
        >
          {wording.add(chosen.length)}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

/** `place`: in what is chosen, from 1; 0 for not chosen. */
function OfferRow({
  offer: { recording, words },
  place,
  onToggle,
}: {
  offer: Offer
  place: number
  onToggle: () => void
}) {
  return (
    <ListItem disablePadding secondaryAction={place > 0 && <Box aria-label={wording.number(place)}>{place}</Box>}>
      <FormControlLabel
        control={
          <Checkbox
            size="small"
            edge="start"
            checked={place > 0}
            onChange={onToggle}
            slotProps={{ input: { 'aria-label': `${recording.name}: ${words}` } }}
          />
        }
        label={words}
        slotProps={{ typography: { noWrap: true } }}
        sx={{ flex: 1, minWidth: 0, pl: 4, borderRadius: 1, '&:hover': { bgcolor: palette.leafTint } }}
      />
    </ListItem>
  )
}
