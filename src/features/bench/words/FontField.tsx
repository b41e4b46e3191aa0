'use client'

import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useSnackbar } from 'notistack'
import { CHOOSABLE_FONTS } from '@/core/model/fontFile'
import { SHIPPED_FONTS } from '@/core/model/fonts'
import type { TextStyle } from '@/core/model/textStyle'
import { addFontFile } from '@/store/fontFiles'
import { useBenchContext, useEdit } from '../benchContext'
import { bringFonts } from '../bringFonts'
import { FileButton } from '@/ui/FileButton'
import { wording } from './wording'

const WEIGHTS: Record<number, string> = {
  400: 'regular',
  500: 'medium',
  600: wording.halfBold,
  700: 'bold',
  800: 'heavy',
}

/** The font of a style and its weight; a person's own can be added from a file. */
export function FontField({
  style,
  onSet,
}: {
  style: TextStyle
  onSet: (change: Partial<Pick<TextStyle, 'font' | 'weight'>>) => void
}) {
  const bench = useBenchContext()
  const { fontFiles } = useEdit()
  const { enqueueSnackbar } = useSnackbar()
  const families = [...SHIPPED_FONTS, ...fontFiles.map((f) => f.name)]
  const take = async (file: File | undefined) => {
    if (!file) return
    const added = await addFontFile(file)
    if (!added) return void enqueueSnackbar(wording.isNotAFontThat(file.name), { variant: 'error' })
    await bringFonts(bench)
    onSet({ font: added.name })
  }
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 120px auto', gap: 2, alignItems: 'center' }}>
      <TextField
        select
        size="small"
        label={wording.font}
        value={families.includes(style.font) ? style.font : ''}
        onChange={(e) => onSet({ font: e.target.value })}
        error={!families.includes(style.font)}
        helperText={families.includes(style.font) ? null : wording.isNotHere(style.font)}
      >
        {families.map((font) => (
          <MenuItem key={font} value={font} sx={{ fontFamily: `"${font}"` }}>
            {font}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        size="small"
        label={wording.weight}
        value={WEIGHTS[style.weight] ? style.weight : 700}
        onChange={(e) => onSet({ weight: Number(e.target.value) })}
      >
        {Object.entries(WEIGHTS).map(([weight, name]) => (
          <MenuItem key={weight} value={Number(weight)}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <FileButton label={wording.aFontFile} accept={CHOOSABLE_FONTS} onChosen={([file]) => void take(file)}>
        {wording.ownFont}
      </FileButton>
    </Box>
  )
}
