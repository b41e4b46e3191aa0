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

const FORMS: Record<Mask['kind'], { words: string; mask: Mask }> = {
  rectangle: { words: 'rectangle', mask: { kind: 'rectangle' } },
  rounded: { words: 'rounded', mask: { kind: 'rounded', radius: 0.12 } },
  ellipse: { words: 'ellipse', mask: { kind: 'ellipse' } },
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
    <Box role="group" aria-label="Outline in the panel" sx={{ display: 'grid', rowGap: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
        <TextField
          select
          size="small"
          label="Form"
          value={mask.kind}
          onChange={(e) => set({ mask: FORMS[e.target.value as Mask['kind']].mask }, 'Change form')}
          sx={{ width: 130 }}
        >
          {Object.entries(FORMS).map(([kind, { words }]) => (
            <MenuItem key={kind} value={kind}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        {mask.kind === 'rounded' &&
          slide('Roundness', mask.radius, 0.5, (radius, gesture) =>
            set({ mask: { kind: 'rounded', radius } }, 'Change form', gesture),
          )}
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={border !== null}
              onChange={(_, on) => set({ border: on ? A_BORDER : null }, on ? 'Add border' : 'Remove border')}
            />
          }
          label="Border"
          {...small}
        />
        {border && (
          <>
            {slide('Border width', border.width, 0.03, (width, gesture) =>
              set({ border: { ...border, width } }, 'Change border', gesture),
            )}
            <ColourField
              bare
              label="Border colour"
              value={border.colour}
              onSet={(colour, gesture) => set({ border: { ...border, colour } }, 'Change border', gesture)}
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
              onChange={(_, on) => set({ shadow: on ? A_SHADOW : null }, on ? 'Add shadow' : 'Remove shadow')}
            />
          }
          label="Shadow"
          {...small}
        />
        {shadow &&
          slide('Shadow', shadow.blur, 0.06, (blur, gesture) =>
            set({ shadow: { ...shadow, blur } }, 'Change shadow', gesture),
          )}
      </Box>
    </Box>
  )
}
