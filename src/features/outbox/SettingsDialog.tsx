'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { chosenBackEnd, type BackEnd } from '@/core/output/backEnd'
import { fileSafe, NAME_PARTS, unknownParts, USUAL_PATTERN } from '@/core/output/fileName'
import { changeOutboxSettings, type OutboxSettings } from '@/store/outboxSettings'
import { palette, textSize } from '@/ui/theme'
import { canWriteToFolders, chooseFilesFolder, forgetFilesFolder } from '@/shared/rendering/filesFolder'
import { mayNotify } from '@/shared/rendering/notify'

const SAMPLE: Record<(typeof NAME_PARTS)[number], string> = {
  highlight: 'Last gate, no lift',
  shape: 'tall',
  outlet: 'Story',
  date: '2026-11-24',
  version: '1',
}

const BACK_ENDS: Record<OutboxSettings['backEnd'], string> = {
  measured: 'whichever is quicker here',
  gpu: 'the GPU',
  planes: 'the kernel, on the decoder’s own planes',
  canvas: 'the browser’s canvas',
}

const USED: Record<BackEnd, string> = { gpu: 'the GPU', planes: 'the kernel', canvas: 'the canvas' }

function measuredWords({ backEnd, measured }: OutboxSettings): string {
  if (!measured) return 'It is measured before the first render.'
  const { canvasMs, planesMs, gpuMs } = measured
  const said = `Measured here: the canvas ${canvasMs.toFixed(1)} ms a picture, the kernel ${planesMs === null ? 'not at all' : `${planesMs.toFixed(1)} ms`}, ${gpuMs === null ? 'no GPU' : `the GPU ${gpuMs.toFixed(1)} ms`}.`
  if (backEnd === 'gpu' && gpuMs === null) return `${said} The processor does its work, slowly.`
  return backEnd === 'measured' ? `${said} Used: ${USED[chosenBackEnd(backEnd, measured)]}.` : said
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
      <DialogTitle>Outbox settings</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 4 }}>
        <Box>
          <Typography variant="h2">Folder</Typography>
          <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft, my: 1 }}>
            {folderWords(folder?.name)}
          </Typography>
          {canWriteToFolders() && (
            <Box sx={{ display: 'flex', gap: 2 }}>
              <Button onClick={() => void chooseFilesFolder()}>{folder ? 'Choose another' : 'Choose a folder'}</Button>
              {folder && <Button onClick={() => void forgetFilesFolder()}>Keep files here only</Button>}
            </Box>
          )}
        </Box>
        <TextField
          size="small"
          label="Names"
          value={pattern}
          onChange={(e) => setPattern(e.target.value)}
          error={unknown.length > 0}
          helperText={
            unknown.length > 0
              ? `There is no {${unknown[0]}}. There are ${NAME_PARTS.map((p) => `{${p}}`).join(', ')}.`
              : `${sample}.mp4. Parts: ${NAME_PARTS.map((p) => `{${p}}`).join(', ')}. No two files get the same name.`
          }
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <TextField
          select
          size="small"
          label="Pictures are drawn by"
          value={settings.backEnd}
          onChange={(e) => void changeOutboxSettings({ backEnd: e.target.value as OutboxSettings['backEnd'] })}
          helperText={measuredWords(settings)}
        >
          {Object.entries(BACK_ENDS).map(([id, name]) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
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
            label="Tell me through the system when the queue is done or needs me"
          />
          {refused && (
            <Typography role="alert" sx={{ fontSize: textSize.note, color: palette.haw }}>
              The browser does not allow it. Allow notifications for this page in its settings, then try again.
            </Typography>
          )}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
        <Button variant="contained" color="primary" disabled={unknown.length > 0} onClick={() => void keep()}>
          Keep
        </Button>
      </DialogActions>
    </Dialog>
  )
}

function folderWords(folderName: string | undefined): string {
  if (folderName !== undefined) return `Each finished file is put into “${folderName}”, beside being kept here.`
  return canWriteToFolders()
    ? 'Files are kept here until you save them. With a folder they are put there as they are finished.'
    : 'This browser cannot write to a folder: files are kept here until you save them.'
}
