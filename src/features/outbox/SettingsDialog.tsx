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
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { chosenBackEnd, type BackEnd } from '@/core/output/backEnd'
import { fileSafe, NAME_PARTS, unknownParts, USUAL_PATTERN } from '@/core/output/fileName'
import { changeOutboxSettings, type OutboxSettings } from '@/store/outboxSettings'
import { ChoiceField } from '@/ui/ChoiceField'
import { palette, textSize } from '@/ui/theme'
import { canWriteToFolders, chooseFilesFolder, forgetFilesFolder } from '@/shared/rendering/filesFolder'
import { mayNotify } from '@/shared/rendering/notify'
import { wording } from './wording'

const SAMPLE: Record<(typeof NAME_PARTS)[number], string> = {
  highlight: wording.lastGateNoLift,
  shape: 'tall',
  outlet: wording.story,
  date: '2026-11-24',
  version: '1',
}

const BACK_ENDS: Record<OutboxSettings['backEnd'], string> = {
  measured: wording.whicheverIsQuickerHere,
  gpu: wording.theGpu,
  planes: wording.theKernelOnTheDecoders,
  canvas: wording.theBrowsersCanvas,
}

const USED: Record<BackEnd, string> = { gpu: wording.theGpu, planes: wording.theKernel, canvas: wording.theCanvas }

function measuredWords({ backEnd, measured }: OutboxSettings): string {
  if (!measured) return wording.itIsMeasuredBeforeThe
  const { canvasMs, planesMs, gpuMs } = measured
  const said = wording.measuredHereTheCanvasMs(canvasMs, planesMs, gpuMs)
  if (backEnd === 'gpu' && gpuMs === null) return wording.theProcessorDoesItsWork(said)
  return backEnd === 'measured' ? wording.used(said, USED[chosenBackEnd(backEnd, measured)]) : said
}

/** How finished files are called, where they go, what draws them, and whether the system tells. */
export function SettingsDialog({
  settings,
  folder,
  onClose,
}: {
  settings: OutboxSettings
  folder: FileSystemDirectoryHandle | null
  onClose: () => void
}) {
  const [pattern, setPattern] = useState(settings.namePattern)
  const [refused, setRefused] = useState(false)
  const unknown = unknownParts(pattern)
  const sample = fileSafe(pattern.replace(/\{([^}]*)\}/g, (whole, part: keyof typeof SAMPLE) => SAMPLE[part] ?? whole))
  const keep = async () => {
    await changeOutboxSettings({ namePattern: pattern.trim() || USUAL_PATTERN })
    onClose()
  }
  return (
    <Dialog open onClose={onClose} maxWidth="xs" fullWidth>
      <DialogTitle>{wording.outboxSettings}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 4 }}>
        <Box>
          <Typography variant="h2">{wording.folder}</Typography>
          <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft, my: 1 }}>
            {folderWords(folder?.name)}
          </Typography>
          {canWriteToFolders() && (
            <Box sx={{ display: 'flex', gap: 2 }}>
              <Button onClick={() => void chooseFilesFolder()}>
                {folder ? wording.chooseAnother : wording.chooseAFolder}
              </Button>
              {folder && <Button onClick={() => void forgetFilesFolder()}>{wording.keepFilesHereOnly}</Button>}
            </Box>
          )}
        </Box>
        <TextField
          size="small"
          label={wording.names}
          value={pattern}
          onChange={(e) => setPattern(e.target.value)}
          error={unknown.length > 0}
          helperText={
            unknown.length > 0
              ? wording.thereIsNoThereAre(unknown[0], NAME_PARTS.map((p) => `{${p}}`).join(', '))
              : wording.mp4PartsNoTwoFiles(sample, NAME_PARTS.map((p) => `{${p}}`).join(', '))
          }
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <ChoiceField
          label={wording.picturesAreDrawnBy}
          value={settings.backEnd}
          options={BACK_ENDS}
          onChange={(id) => void changeOutboxSettings({ backEnd: id })}
          help={measuredWords(settings)}
        />
        <Box>
          <FormControlLabel
            control={
              <Checkbox
                size="small"
                checked={settings.notify}
                onChange={(_, on) =>
                  void (on ? mayNotify() : Promise.resolve(false)).then(
                    (may) => (setRefused(on && !may), changeOutboxSettings({ notify: may })),
                  )
                }
              />
            }
            label={wording.tellMeThroughTheSystem}
          />
          {refused && (
            <Typography role="alert" sx={{ fontSize: textSize.note, color: palette.haw }}>
              {wording.theBrowserDoesNotAllow}
            </Typography>
          )}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{wording.close}</Button>
        <Button variant="contained" color="primary" disabled={unknown.length > 0} onClick={() => void keep()}>
          {wording.keep}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

function folderWords(folderName: string | undefined): string {
  if (folderName !== undefined) return wording.eachFinishedFileIsPut(folderName)
  return canWriteToFolders() ? wording.filesAreKeptHereUntil : wording.thisBrowserCannotWriteTo
}
