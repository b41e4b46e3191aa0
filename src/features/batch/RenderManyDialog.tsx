'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import Radio from '@mui/material/Radio'
import RadioGroup from '@mui/material/RadioGroup'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import type { Highlight } from '@/core/model/highlight'
import { USUAL_OUTPUT, type OutputChoice } from '@/core/model/outputChoice'
import { ratesFor } from '@/core/output/renderSettings'
import { getRecording } from '@/store/recordings'
import { OutputFields } from '@/shared/rendering/OutputFields'
import { PresetBar } from '@/shared/rendering/PresetBar'
import { textSize } from '@/ui/theme'
import { wording } from './wording'

/**
 * How many highlights are rendered: each with its own settings, or all with the same. `onRender`: null for their own.
 */
export function RenderManyDialog({
  highlights,
  onRender,
  onClose,
}: {
  highlights: readonly Highlight[]
  onRender: (output: OutputChoice | null) => void
  onClose: () => void
}) {
  const [same, setSame] = useState(false)
  const [choice, setChoice] = useState<OutputChoice>(highlights[0]?.output ?? USUAL_OUTPUT)
  const recordingId = highlights[0]?.passages[0]?.recordingId
  const recording = useLiveQuery(async () => (recordingId ? await getRecording(recordingId) : null), [recordingId])
  const files = highlights.reduce((sum, h) => sum + h.shapes.length, 0)
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
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
        {wording.render(highlights.length)}
        {same && <PresetBar choice={choice} onChoose={setChoice} />}
      </DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 4 }}>
        <RadioGroup
          aria-label={wording.settings}
          value={same ? 'same' : 'own'}
          onChange={(_, value) => setSame(value === 'same')}
        >
          <FormControlLabel value="own" control={<Radio size="small" />} label={wording.eachWithTheSettingsIt} />
          <FormControlLabel value="same" control={<Radio size="small" />} label={wording.allWithTheSameSettings} />
        </RadioGroup>
        {same && recording && (
          <Box>
            <OutputFields
              choice={choice}
              onChange={setChoice}
              rates={ratesFor(recording)}
              own={recording.video.frameRate}
              withCaptions={highlights.some((h) => h.words.cues.length > 0)}
              withSound
              withLoop={false}
            />
          </Box>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{wording.notNow}</Button>
        <Button variant="contained" color="primary" onClick={() => onRender(same ? choice : null)}>
          {wording.renderOfFiles(files)}
        </Button>
      </DialogActions>
    </Dialog>
  )
}
