'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import type { Brand } from '@/core/model/brand'
import { DEFAULT_FONT, SHIPPED_FONTS } from '@/core/model/fonts'
import { CHOOSABLE_PICTURES } from '@/core/model/imageFile'
import { title } from '@/core/model/record'
import { keptFonts } from '@/store/fontFiles'
import { pictureRefusal } from '@/shared/foreignFiles'
import { addImageFile } from '@/store/imageFiles'
import { changeKept, keep, type Unstamped } from '@/store/rack'
import { ColourField } from '@/ui/ColourField'
import { FormDialog } from './FormDialog'
import { FileButton } from '@/ui/FileButton'
import { textSize } from '@/ui/theme'
import { wording } from './wording'

const PLAIN: Unstamped<'brand'> = {
  name: wording.newBrand,
  tags: [],
  palette: { ground: '#20261f', ink: '#f4f2ec', accent: '#2e5e3e' },
  fonts: { title: DEFAULT_FONT, captions: DEFAULT_FONT },
  logo: null,
  endCard: null,
  handle: '',
}

const COLOURS = { ground: wording.ground, ink: wording.words, accent: wording.accent } as const
const FONTS = { title: wording.fontOfTitles, captions: wording.fontOfCaptions } as const
const PICTURES = { logo: wording.logo, endCard: wording.endCard } as const

/** Makes a brand, or changes one that is kept. */
export function BrandDialog({ brand, onClose }: { brand: Brand | null; onClose: () => void }) {
  const [draft, setDraft] = useState<Unstamped<'brand'>>(brand ?? PLAIN)
  const [problem, setProblem] = useState<string | null>(null)
  const own = useLiveQuery(keptFonts)
  const named = title.safeParse(draft.name)
  const set = (change: Partial<Unstamped<'brand'>>) => setDraft({ ...draft, ...change })
  const take = async (which: keyof typeof PICTURES, file: File | undefined) => {
    if (!file) return
    const added = await addImageFile(file)
    if (added.ok) set({ [which]: added.imageFile.id })
    setProblem(added.ok ? null : pictureRefusal(file.name, added.reason))
  }
  const save = async () => {
    const content = { ...draft, name: named.data ?? draft.name }
    if (brand) await changeKept('brand', brand.id, content)
    else await keep('brand', content)
    onClose()
  }
  return (
    <FormDialog
      title={brand ? wording.change(brand.name) : wording.newBrand}
      button={brand ? wording.keepChanges : wording.makeBrand}
      ready={named.success}
      problem={problem}
      onSave={() => void save()}
      onClose={onClose}
    >
      <TextField
        size="small"
        autoFocus
        label={wording.name}
        value={draft.name}
        error={!named.success}
        onChange={(e) => set({ name: e.target.value })}
        onFocus={(e) => e.target.select()}
      />
      <Box sx={{ display: 'flex', gap: 4 }}>
        {Object.entries(COLOURS).map(([key, words]) => (
          <ColourField
            key={key}
            label={words}
            value={draft.palette[key as keyof typeof COLOURS]}
            onSet={(value) => set({ palette: { ...draft.palette, [key]: value } })}
          />
        ))}
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 3 }}>
        {Object.entries(FONTS).map(([key, words]) => (
          <TextField
            key={key}
            select
            size="small"
            label={words}
            value={draft.fonts[key as keyof typeof FONTS]}
            onChange={(e) => set({ fonts: { ...draft.fonts, [key]: e.target.value } })}
          >
            {[...SHIPPED_FONTS, ...(own ?? []).map((f) => f.name)].map((font) => (
              <MenuItem key={font} value={font}>
                {font}
              </MenuItem>
            ))}
          </TextField>
        ))}
      </Box>
      <TextField
        size="small"
        label={wording.handle}
        placeholder={wording.heronRidge}
        value={draft.handle}
        onChange={(e) => set({ handle: e.target.value.slice(0, 60) })}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      {Object.entries(PICTURES).map(([key, words]) => {
        const which = key as keyof typeof PICTURES
        return (
          <Box key={key} sx={{ display: 'flex', alignItems: 'center', gap: 2, fontSize: textSize.note }}>
            <Box sx={{ width: 70 }}>{words}</Box>
            <FileButton
              label={wording.pictureFor(words)}
              accept={CHOOSABLE_PICTURES}
              onChosen={([file]) => void take(which, file)}
            >
              {draft[which] ? wording.anotherPicture : wording.chooseAPicture}
            </FileButton>
            {draft[which] && <Button onClick={() => set({ [which]: null })}>{wording.without}</Button>}
          </Box>
        )
      })}
    </FormDialog>
  )
}
