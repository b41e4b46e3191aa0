'use client'

import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import Slider from '@mui/material/Slider'
import TextField from '@mui/material/TextField'
import { useRef } from 'react'
import type { Mask, Outline } from '@/core/model/outline'
import { ColourField } from '@/ui/ColourField'
import { textSize } from '@/ui/theme'
import { wording } from './wording'

const FORMS: Record<Mask['kind'], { words: string; mask: Mask }> = {
  rectangle: { words: wording.rectangle, mask: { kind: 'rectangle' } },
  rounded: { words: wording.rounded, mask: { kind: 'rounded', radius: 0.12 } },
  ellipse: { words: wording.ellipse, mask: { kind: 'ellipse' } },
}

const A_BORDER = { width: 0.006, colour: '#f4f2ec' }
const A_SHADOW = { blur: 0.02, opacity: 0.55 }

const small = { slotProps: { typography: { sx: { fontSize: textSize.note } } } } as const

/** Form, border and shadow of a picture in its panel. Changes with the same `gesture` are one step. */
export function OutlineFields({
  outline,
  onSet,
}: {
  outline: Outline
  onSet: (outline: Outline, label: string, gesture?: string) => void
}) {
  const { mask, border, shadow } = outline
  const dragged = useRef<string>(crypto.randomUUID())
  const set = (change: Partial<Outline>, label: string, gesture?: string) =>
    onSet({ ...outline, ...change }, label, gesture)
  /** One drag of a slider is one step. */
  const slide = (label: string, value: number, most: number, onSlide: (value: number, gesture: string) => void) => (
    <Slider
      size="small"
      aria-label={label}
      value={value}
      min={most / 100}
      max={most}
      step={most / 100}
      onChange={(_, v) => onSlide(v as number, dragged.current)}
      onChangeCommitted={() => (dragged.current = crypto.randomUUID())}
      sx={{ width: 92, mx: 1 }}
    />
  )
  return (
    <Box role="group" aria-label={wording.outlineInThePanel} sx={{ display: 'grid', rowGap: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
        <TextField
          select
          size="small"
          label={wording.form}
          value={mask.kind}
          onChange={(e) => set({ mask: FORMS[e.target.value as Mask['kind']].mask }, wording.changeForm)}
          sx={{ width: 130 }}
        >
          {Object.entries(FORMS).map(([kind, { words }]) => (
            <MenuItem key={kind} value={kind}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        {mask.kind === 'rounded' &&
          slide(wording.roundness, mask.radius, 0.5, (radius, gesture) =>
            set({ mask: { kind: 'rounded', radius } }, wording.changeForm, gesture),
          )}
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={border !== null}
              onChange={(_, on) => set({ border: on ? A_BORDER : null }, on ? wording.addBorder : wording.removeBorder)}
            />
          }
          label={wording.border}
          {...small}
        />
        {border && (
          <>
            {slide(wording.borderWidth, border.width, 0.03, (width, gesture) =>
              set({ border: { ...border, width } }, wording.changeBorder, gesture),
            )}
            <ColourField
              bare
              label={wording.borderColour}
              value={border.colour}
              onSet={(colour, gesture) => set({ border: { ...border, colour } }, wording.changeBorder, gesture)}
            />
          </>
        )}
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={shadow !== null}
              onChange={(_, on) => set({ shadow: on ? A_SHADOW : null }, on ? wording.addShadow : wording.removeShadow)}
            />
          }
          label={wording.shadow}
          {...small}
        />
        {shadow &&
          slide(wording.shadow, shadow.blur, 0.06, (blur, gesture) =>
            set({ shadow: { ...shadow, blur } }, wording.changeShadow, gesture),
          )}
      </Box>
    </Box>
  )
}
