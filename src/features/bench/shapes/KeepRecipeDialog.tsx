'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import { useLiveQuery } from 'dexie-react-hooks'
import { useSnackbar } from 'notistack'
import { useState, type FormEvent } from 'react'
import { title } from '@/core/model/record'
import { keep, kept } from '@/store/rack'
import { keptSetups } from '@/store/setups'
import { ByItselfFields } from '@/shared/ByItselfFields'
import { LayoutDiagram } from '@/ui/LayoutDiagram'
import { SetupDiagram } from '@/ui/SetupDiagram'
import { palette, textSize } from '@/ui/theme'
import { baseLayoutOn } from '@/edit/layouts'
import { useBenchContext, useHighlight, useParts } from '../benchContext'
import { wording } from './wording'

/** Binds where things are, where they go, in whose colours and in which shapes, to be had again in one action. */
export function KeepRecipeDialog({ onClose }: { onClose: () => void }) {
  const { session } = useBenchContext()
  const { setup, layout } = useParts()
  const { shapes, brandId, words, marks, output } = useHighlight()
  const { enqueueSnackbar } = useSnackbar()
  const setups = useLiveQuery(keptSetups)
  const brands = useLiveQuery(() => kept('brand'))
  const base = setups?.find((s) => s.id === setup.basedOn) ?? null
  const brand = brands?.find((b) => b.id === brandId) ?? null
  const [name, setName] = useState(base?.name ?? layout.name)
  const [byItself, setByItself] = useState(true)
  const [cutsScenes, setCutsScenes] = useState(false)
  const named = title.safeParse(name)
  const keepIt = async (event: FormEvent) => {
    event.preventDefault()
    if (!named.success) return
    const layouts = await kept('layout')
    let layoutId = layouts.find((l) => l.id === layout.basedOn)?.id
    if (!layoutId) {
      const { arrangement, perShape } = layout
      const made = await keep('layout', {
        name: layout.name,
        tags: layout.tags,
        arrangement,
        perShape,
        ownedBy: null,
        basedOn: null,
      })
      baseLayoutOn(session, { layoutId: layout.id, kept: made })
      layoutId = made.id
    }
    const made = await keep('recipe', {
      name: named.data,
      tags: [],
      setupId: base?.id ?? null,
      layoutId,
      brandId: brand?.id ?? null,
      shapes,
      captions: words.captions,
      marks: marks.length > 0 ? marks : null,
      output,
      byItself: byItself && base !== null,
      cutsScenes: cutsScenes && byItself && base !== null,
    })
    enqueueSnackbar(
      made.byItself ? wording.isKeptRecordingsRecognisedAs(made.name, base?.name) : wording.isKept(made.name),
    )
    onClose()
  }
  return (
    <Dialog open onClose={onClose} maxWidth="xs" fullWidth>
      <Box component="form" onSubmit={(e) => void keepIt(e)}>
        <DialogTitle>{wording.keepAsARecipe}</DialogTitle>
        <DialogContent sx={{ display: 'grid', rowGap: 4 }}>
          <Box sx={{ display: 'flex', gap: 4, alignItems: 'center', pt: 2 }}>
            {base && <SetupDiagram regions={base.regions} width={144} />}
            <LayoutDiagram arrangement={layout.arrangement} height={92} />
          </Box>
          <Box sx={{ fontSize: textSize.note, color: palette.inkSoft }}>
            {base ? wording.setup(base.name) : wording.anySetupTheseRegionsAre}; layout “{layout.name}”
            {layout.basedOn ? '' : wording.whichIsKeptWithIt};{' '}
            {brand ? wording.inTheColoursOf(brand.name) : wording.noBrand}; captions in “{words.captions.style.font}”;{' '}
            {marks.length > 0 && `${marks.length} ${marks.length === 1 ? wording.mark : wording.marks}; `}
            {shapes.map((s) => s.id).join(', ')}.
          </Box>
          <TextField
            size="small"
            autoFocus
            label={wording.name}
            value={name}
            error={!named.success}
            onChange={(e) => setName(e.target.value)}
            onFocus={(e) => e.target.select()}
          />
          {base && (
            <ByItselfFields
              setupName={base.name}
              value={{ byItself, cutsScenes }}
              onChange={(change) => {
                setByItself(change.byItself ?? byItself)
                setCutsScenes(change.cutsScenes ?? cutsScenes)
              }}
            />
          )}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>{wording.cancel}</Button>
          <Button type="submit" variant="contained" color="primary" disabled={!named.success}>
            {wording.keepRecipe}
          </Button>
        </DialogActions>
      </Box>
    </Dialog>
  )
}
