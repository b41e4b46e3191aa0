'use client'

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import { useEffect, useRef, useState } from 'react'
import { canMakeCopies, makeCopy, type CopyProgress } from '@/shared/recordings/workingCopy'
import { openBin } from '@/shared/bin/BinButton'
import { ProgressLine } from '@/ui/ProgressLine'
import { formatLength } from '@/ui/format'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import type { Problem } from './useAdding'
import { wording } from './wording'

/** What went wrong with a file that was added, and what can be done about it here. */
export function ProblemAlert({
  problem: { text, isNoRoom, curable },
  onCopied,
  onClose,
}: {
  problem: Problem
  onCopied: (copy: File, fromHdr: boolean) => Promise<unknown>
  onClose: () => void
}) {
  return (
    <Alert severity="error" onClose={onClose} sx={{ borderRadius: 0, borderBottom: 1, borderColor: 'divider' }}>
      {text} {isNoRoom && <Button onClick={openBin}>{wording.openTheBin}</Button>}
      {curable && <CopyOffer file={curable} onCopied={(copy, fromHdr) => onCopied(copy, fromHdr).then(onClose)} />}
    </Alert>
  )
}

/** Offers to make a copy of a recording that can be read, and shows how far that is. */
function CopyOffer({ file, onCopied }: { file: File; onCopied: (copy: File, fromHdr: boolean) => Promise<unknown> }) {
  const [isThere, setThere] = useState<boolean | null>(null)
  const [progress, setProgress] = useState<CopyProgress | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const work = useRef<AbortController | null>(null)
  useEffect(() => void canMakeCopies().then(setThere), [])
  useEffect(() => () => work.current?.abort(), [])
  if (isThere === null) return null
  if (!isThere) return <Box sx={{ mt: 1 }}>{wording.withFfmpegHere}</Box>
  const begin = async () => {
    const own = (work.current = new AbortController())
    setProblem(null)
    setProgress({ share: 0, secondsLeft: null })
    const made = await makeCopy(file, setProgress, own.signal)
    setProgress(null)
    if (made.ok) return void (await onCopied(made.file, made.fromHdr))
    if (made.reason !== 'cancelled')
      setProblem(made.reason === 'failed' ? wording.copyFailed(made.detail) : wording.copyRefused[made.reason])
  }
  return (
    <Box sx={{ mt: 1, display: 'grid', gap: 1 }}>
      {problem && <Box>{problem}</Box>}
      {progress ? (
        <CopyLine name={file.name} progress={progress} onStop={() => work.current?.abort()} />
      ) : (
        <Box>
          <Button onClick={() => void begin()}>{wording.makeACopy}</Button> {wording.makeACopyMeans}
        </Box>
      )}
    </Box>
  )
}

function CopyLine({
  name,
  progress: { share, secondsLeft },
  onStop,
}: {
  name: string
  progress: CopyProgress
  onStop: () => void
}) {
  if (share === null) return <LinearProgress aria-label={wording.makingACopy(name)} />
  const left = secondsLeft === null ? null : formatLength(secondsLeft * MICROS_PER_SECOND)
  return (
    <ProgressLine
      words={wording.copyIsAt(share, left)}
      share={share}
      measure={wording.makingACopy(name)}
      stop={wording.cancel}
      onStop={onStop}
    />
  )
}
