'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { firstRecordingOf, usedRecordings } from '@/core/model/edit'
import type { OutputChoice } from '@/core/model/outputChoice'
import { estimate } from '@/core/output/estimate'
import { captionsAsShown, LONGEST_LOOP_SECONDS, ratesFor, sizeOfFile, wantedOf } from '@/core/output/renderSettings'
import { toSeconds } from '@/core/time/micros'
import { outputLength } from '@/core/time/timeMap'
import { allRenders, queueRenders } from '@/store/renders'
import { formatBytes, formatDuration, formatSize } from '@/ui/format'
import { fonts, palette, textSize } from '@/ui/theme'
import { setOutput } from '@/edit/highlight'
import { useBenchContext, useEdit, useView } from '../benchContext'
import { CodingNote } from './CodingNote'
import { OutputFields } from '@/shared/rendering/OutputFields'
import { PresetBar } from '@/shared/rendering/PresetBar'
import { wording } from './wording'

/** What to render and how; starts the renders and closes. */
export function RenderDialog({
  open,
  onClose,
  onQueued,
}: {
  open: boolean
  onClose: () => void
  onQueued: (files: number) => void
}) {
  const { session } = useBenchContext()
  const edit = useEdit()
  const outlet = useView((v) => v.outlet)
  const past = useLiveQuery(allRenders, [])
  const { shapes, words, output } = edit.highlight
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const [choice, setChoice] = useState<OutputChoice>(() => captionsAsShown(output, edit.highlight))
  const seconds = toSeconds(outputLength(edit.highlight))
  const recording = firstRecordingOf(edit)
  const wanted = wantedOf(edit, shapes, choice)
  const toMake = wanted.filter((w) => !left.has(w.shape.id))
  const expected = (file: (typeof wanted)[number]) => estimate(file, seconds, past ?? [])
  const all = toMake.map(expected).map((e) => e.seconds)
  const takes = all.includes(null) ? null : all.reduce((sum: number, s) => sum + (s ?? 0), 0)
  const keepChoice = () => {
    if (JSON.stringify(choice) !== JSON.stringify(output)) setOutput(session, { output: choice })
  }
  /** However it is closed, what was chosen is there the next time. */
  const close = () => {
    keepChoice()
    onClose()
  }
  const start = async () => {
    keepChoice()
    await queueRenders(session.value, toMake, outlet?.name ?? null)
    onQueued(toMake.length)
  }
  if (!recording) return null
  return (
    <Dialog open={open} onClose={close} maxWidth="sm" fullWidth>
      <DialogTitle
        sx={{
          fontSize: textSize.title,
          fontWeight: 700,
          pb: 1,
          display: 'flex',
          alignItems: 'center',
          justifyContent: 'space-between',
          gap: 4,
        }}
      >
        {wording.render}
        <PresetBar choice={choice} onChoose={(output) => setChoice(captionsAsShown(output, edit.highlight))} />
      </DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 4 }}>
        <Box role="group" aria-label={wording.shapesToRender}>
          {wanted.map((file) => (
            <Box key={file.shape.id} sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
              <FormControlLabel
                control={
                  <Checkbox
                    size="small"
                    checked={!left.has(file.shape.id)}
                    onChange={(_, on) =>
                      setLeft(
                        (all) => new Set(on ? [...all].filter((id) => id !== file.shape.id) : [...all, file.shape.id]),
                      )
                    }
                  />
                }
                label={`${file.shape.id} ${formatSize(sizeOfFile(file))}`}
              />
              <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.note, color: palette.inkSoft }}>
                {wording.about(formatBytes(expected(file).bytes))}
              </Box>
            </Box>
          ))}
        </Box>
        <OutputFields
          choice={choice}
          onChange={setChoice}
          rates={ratesFor(recording)}
          own={recording.video.frameRate}
          withCaptions={words.cues.length > 0}
          withSound={usedRecordings(edit).some((r) => r.sound !== null)}
          withLoop={seconds <= LONGEST_LOOP_SECONDS}
        />
        <CodingNote wanted={toMake} withSound={usedRecordings(edit).some((r) => r.sound !== null)} />
      </DialogContent>
      <DialogActions>
        <Box sx={{ flex: 1, fontSize: textSize.note, color: palette.inkSoft }}>
          {takes === null ? wording.howLongItTakesIs : wording.aboutOnThisMachineAfter(formatDuration(takes))}
        </Box>
        <Button onClick={close}>{wording.notNow}</Button>
        <Button variant="contained" color="primary" disabled={toMake.length === 0} onClick={() => void start()}>
          {wording.renderOfCount(toMake.length)}
        </Button>
      </DialogActions>
    </Dialog>
  )
}
