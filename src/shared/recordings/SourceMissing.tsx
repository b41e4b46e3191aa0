'use client'

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import type { Recording } from '@/core/model/recording'
import { inspector } from '@/media/inspect/inspector'
import { askForFile, relink } from '@/store/recordings'
import { formatBytes, formatLength, formatVideo } from '@/ui/format'
import { palette } from '@/ui/theme'
import { placeOf } from './addRecordings'
import { chooseFiles } from './chosenFiles'
import { keepMessage, probeMessage } from './messages'

/** A recording's length may differ by this much and still be taken for the same file. */
const SAME_LENGTH_MICROS = 100_000

/**
 * The recording's file is gone, or the browser wants permission again: says which, and takes the person back to work.
 */
export function SourceMissing({
  recording,
  needsPermission,
  onFound,
}: {
  recording: Recording
  needsPermission: boolean
  onFound: () => void
}) {
  const [problem, setProblem] = useState<string | null>(null)
  const allow = async () => {
    const answer = await askForFile(recording.id)
    if (answer.ok) onFound()
    else
      setProblem(
        answer.reason === 'gone'
          ? `“${recording.fileName}” is not where it was. Choose it again.`
          : 'The browser was not allowed to read the file.',
      )
  }
  const choose = async () => {
    const [chosen] = await chooseFiles(false)
    if (!chosen) return
    const probed = await inspector().probe(chosen.file)
    if (!probed.ok) return setProblem(probeMessage(chosen.file.name, probed))
    if (Math.abs(probed.durationMicros - recording.durationMicros) > SAME_LENGTH_MICROS)
      return setProblem(
        `“${chosen.file.name}” lasts ${formatLength(probed.durationMicros)}, the recording ${formatLength(recording.durationMicros)}: it is another file. Nothing was changed.`,
      )
    const kept = await relink(recording.id, chosen.file, placeOf(recording.source === 'linked' ? chosen.handle : null))
    setProblem(keepMessage(chosen.file.name, kept))
    onFound()
  }
  return (
    <Box sx={{ p: 10, maxWidth: 640 }}>
      <Typography component="h1" variant="h1">
        {needsPermission
          ? `Brimble needs your permission to read “${recording.fileName}” again`
          : `“${recording.fileName}” is missing`}
      </Typography>
      <Typography sx={{ my: 3, color: palette.inkSoft }}>
        {needsPermission
          ? 'Browsers take back the permission to read a linked file when the page is closed.'
          : 'It was moved or deleted, or there was no room to keep a copy.'}{' '}
        Everything you did is kept. The file was {formatLength(recording.durationMicros)} long,{' '}
        {formatVideo(recording.video)}, {formatBytes(recording.sizeBytes)}.
      </Typography>
      {problem && (
        <Alert severity="error" sx={{ mb: 3 }}>
          {problem}
        </Alert>
      )}
      <Box sx={{ display: 'flex', gap: 2 }}>
        {needsPermission && (
          <Button variant="contained" color="primary" onClick={() => void allow()}>
            Allow reading
          </Button>
        )}
        <Button
          variant={needsPermission ? 'outlined' : 'contained'}
          color={needsPermission ? 'inherit' : 'primary'}
          onClick={() => void choose()}
        >
          Choose the file again
        </Button>
      </Box>
    </Box>
  )
}
