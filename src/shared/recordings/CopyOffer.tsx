'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import { useEffect, useRef, useState } from 'react'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { ProgressLine } from '@/ui/ProgressLine'
import { formatLength } from '@/ui/format'
import { wording } from './wording'
import { canMakeCopies, makeCopy, type CopyProgress } from './workingCopy'

/** Offers to make a copy of a recording that can be read, and shows how far that is. */
export function CopyOffer({
  file,
  onCopied,
}: {
  file: File
  onCopied: (copy: File, fromHdr: boolean) => Promise<unknown>
}) {
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
