'use client'

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import type { Recording } from '@/core/model/recording'
import { askForFile, relink } from '@/store/recordings'
import { formatBytes, formatLength, formatVideo } from '@/ui/format'
import { palette } from '@/ui/theme'
import { placeOf, probeFile } from './addRecordings'
import { chooseFiles, type ChosenFile } from './chosenFiles'
import { CopyOffer } from './CopyOffer'
import { keepMessage, probeMessage, wording } from './wording'
import { isCurable } from './workingCopy'

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
  /** What was chosen and cannot be read, as the recording could not when it was added: a copy was made of it. */
  const [curable, setCurable] = useState<File | null>(null)
  const allow = async () => {
    const answer = await askForFile(recording.id)
    if (answer.ok) onFound()
    else
      setProblem(
        answer.reason === 'gone' ? wording.isNotWhereItWas(recording.fileName) : wording.theBrowserWasNotAllowed,
      )
  }
  const choose = async () => {
    const [chosen] = await chooseFiles(false)
    if (!chosen) return
    await take(chosen)
  }
  const take = async (chosen: ChosenFile) => {
    const { probed, ...found } = await probeFile(chosen)
    setCurable(!probed.ok && isCurable(probed) ? chosen.file : null)
    if (!probed.ok) return setProblem(probeMessage(chosen.file.name, probed))
    if (Math.abs(probed.durationMicros - recording.durationMicros) > SAME_LENGTH_MICROS)
      return setProblem(
        wording.lastsTheRecordingItIs(
          chosen.file.name,
          formatLength(probed.durationMicros),
          formatLength(recording.durationMicros),
        ),
      )
    const kept = await relink(recording.id, found.file, placeOf(recording.source === 'linked' ? found.handle : null))
    setProblem(keepMessage(chosen.file.name, kept))
    onFound()
  }
  return (
    <Box sx={{ p: 10, maxWidth: 640 }}>
      <Typography component="h1" variant="h1">
        {needsPermission
          ? wording.brimbleNeedsYourPermissionTo(recording.fileName)
          : wording.isMissing(recording.fileName)}
      </Typography>
      <Typography sx={{ my: 3, color: palette.inkSoft }}>
        {wording.everythingYouDidIsKept(
          needsPermission,
          formatLength(recording.durationMicros),
          formatVideo(recording.video),
          formatBytes(recording.sizeBytes),
        )}
      </Typography>
      {problem && (
        <Alert severity="error" sx={{ mb: 3 }}>
          {problem}
          {curable && <CopyOffer file={curable} onCopied={(copy) => take({ file: copy, handle: null })} />}
        </Alert>
      )}
      <Box sx={{ display: 'flex', gap: 2 }}>
        {needsPermission && (
          <Button variant="contained" color="primary" onClick={() => void allow()}>
            {wording.allowReading}
          </Button>
        )}
        <Button
          variant={needsPermission ? 'outlined' : 'contained'}
          color={needsPermission ? 'inherit' : 'primary'}
          onClick={() => void choose()}
        >
          {wording.chooseTheFileAgain}
        </Button>
      </Box>
    </Box>
  )
}
