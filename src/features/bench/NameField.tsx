'use client'

import Box from '@mui/material/Box'
import { title } from '@/core/model/record'
import { TextInPlace } from '@/ui/TextInPlace'
import { setName } from '@/edit/highlight'
import { useBenchContext, useHighlight } from './benchContext'
import { wording } from './wording'

/** The highlight's name, typed in place; an empty one is put back. */
export function NameField() {
  const { session } = useBenchContext()
  const { name } = useHighlight()
  const set = (text: string) => {
    const typed = title.safeParse(text)
    if (typed.success) setName(session, { name: typed.data }, crypto.randomUUID())
  }
  return (
    <Box sx={{ width: 'clamp(120px, 24vw, 340px)' }}>
      <TextInPlace label={wording.nameOfTheHighlight} value={name} strong onSet={set} />
    </Box>
  )
}
