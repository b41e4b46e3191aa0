'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useSnackbar } from 'notistack'
import { useState, type FormEvent } from 'react'
import { title } from '@/core/model/record'
import { keep } from '@/store/rack'
import { NameAndTags } from '@/ui/NameAndTags'
import { LayoutDiagram } from '@/ui/LayoutDiagram'
import { tagsFrom } from '@/ui/tags'
import { palette, textSize } from '@/ui/theme'
import { baseLayoutOn } from '@/edit/layouts'
import { useBenchContext, useLayout } from '../benchContext'
import { wording } from './wording'

/** Keeps the arrangement, with what single shapes have of their own, for other highlights. */
export function KeepLayoutDialog({ onClose }: { onClose: () => void }) {
  const { session } = useBenchContext()
  const layout = useLayout()
  const { enqueueSnackbar } = useSnackbar()
  const [name, setName] = useState(layout.name)
  const [tags, setTags] = useState(layout.tags.join(', '))
  const named = title.safeParse(name)
  const keepIt = async (event: FormEvent) => {
    event.preventDefault()
    if (!named.success) return
    const { arrangement, perShape } = layout
    const made = await keep('layout', {
      name: named.data,
      tags: tagsFrom(tags),
      arrangement,
      perShape,
      ownedBy: null,
      basedOn: null,
    })
    baseLayoutOn(session, { layoutId: layout.id, kept: made })
    enqueueSnackbar(wording.isKeptItStandsFirst(made.name))
    onClose()
  }
  return (
    <Dialog open onClose={onClose} maxWidth="xs" fullWidth>
      <Box component="form" onSubmit={(e) => void keepIt(e)}>
        <DialogTitle>{wording.keepAsALayout}</DialogTitle>
        <DialogContent sx={{ display: 'grid', rowGap: 4 }}>
          <Box sx={{ display: 'flex', gap: 4, alignItems: 'center', pt: 2 }}>
            <LayoutDiagram arrangement={layout.arrangement} height={120} />
            <Box sx={{ fontSize: textSize.note, color: palette.inkSoft }}>{wording.itSaysWhereThingsGo}</Box>
          </Box>
          <NameAndTags name={name} isNameRight={named.success} onName={setName} tags={tags} onTags={setTags} />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>{wording.cancel}</Button>
          <Button type="submit" variant="contained" color="primary" disabled={!named.success}>
            {wording.keepLayout}
          </Button>
        </DialogActions>
      </Box>
    </Dialog>
  )
}
