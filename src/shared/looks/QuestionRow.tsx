'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { OpenQuestion } from '@/store/resemblances'
import { textSize } from '@/ui/theme'
import { wording } from '../wording'

/** Asks whether a kept setup is the one that a recording looks like; stays until it is answered. */
export function RecordingQuestion({
  question: { setup, likeness },
  recipeName,
  ...answers
}: {
  question: OpenQuestion
  /** What would lay it out too; null for nothing, absent where that is not looked up. */
  recipeName?: string | null
  onYes: () => void
  onNo: () => void
}) {
  const plain = recipeName === null ? wording.useItsRegions : wording.useIt
  const yes = recipeName ? wording.useItWith(recipeName) : plain
  return <QuestionRow setupName={setup.name} words={wording.looksLike(setup.name, likeness)} yes={yes} {...answers} />
}

/** The same, about whatever `words` say. */
export function QuestionRow({
  setupName,
  words,
  yes,
  onYes,
  onNo,
}: {
  setupName: string
  words: string
  /** What the button does that says yes. */
  yes: string
  onYes: () => void
  onNo: () => void
}) {
  return (
    <Box
      role="group"
      aria-label={wording.isThis(setupName)}
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        gap: 1.5,
        px: 3,
        py: 1,
        borderBottom: 1,
        borderColor: 'divider',
        bgcolor: 'background.paper',
        fontSize: textSize.note,
      }}
    >
      <Box sx={{ flex: '1 1 190px' }}>{words}</Box>
      <Button variant="contained" color="primary" onClick={onYes}>
        {yes}
      </Button>
      <Button onClick={onNo}>{wording.itIsNot}</Button>
    </Box>
  )
}
