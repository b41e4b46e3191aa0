'use client'

import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import { useEffect } from 'react'
import type { TextStyle } from '@/core/model/textStyle'
import { isLight } from '@/core/words/contrast'
import type { StartingStyle } from '@/core/words/textStyles'
import { quietly } from '@/diagnostics/note'
import { loadFonts } from '@/media/fonts/loadFonts'
import { fonts, palette, textSize } from '@/ui/theme'

const loadSamples = (choices: readonly StartingStyle[]) =>
  Promise.all(choices.map(({ name, style }) => loadFonts(name, style)))

/** Styles to choose from, each by its name set in it. */
export function StyleChoice({
  label,
  choices,
  chosen,
  onChoose,
}: {
  label: string
  choices: readonly StartingStyle[]
  chosen: TextStyle
  onChoose: (style: TextStyle) => void
}) {
  useEffect(() => void loadSamples(choices).catch(quietly('fonts')), [choices])
  return (
    <Box
      role="group"
      aria-label={label}
      sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(94px, 1fr))', gap: 1 }}
    >
      {choices.map(({ id, name, purpose, style }) => (
        <ButtonBase
          key={id}
          title={purpose}
          aria-pressed={isLike(style, chosen)}
          onClick={() => onChoose(style)}
          sx={{
            height: 40,
            px: 1,
            borderRadius: '3px',
            bgcolor: !isLight(style.colour) && !style.block ? '#C9CCC6' : palette.mat,
            overflow: 'hidden',
            ...(isLike(style, chosen) && { outline: `2px solid ${palette.leaf}`, outlineOffset: 1 }),
            '&:focus-visible': { outline: `2px solid ${palette.straw}`, outlineOffset: 1 },
          }}
        >
          <Box component="span" data-sample sx={sample(style)}>
            {name}
          </Box>
        </ButtonBase>
      ))}
    </Box>
  )
}

/** Styles are told apart by all but what is set beside them: size and lines. */
const isLike = (a: TextStyle, b: TextStyle) =>
  JSON.stringify({ ...a, size: 0, lines: 0 }) === JSON.stringify({ ...b, size: 0, lines: 0 })

/** A name in its own style, as near as a page comes to it. */
function sample({ font, weight, colour, capitals, outline, shadow, block }: TextStyle) {
  return {
    fontFamily: `"${font}", ${fonts.text}`,
    fontWeight: weight,
    fontSize: textSize.title,
    lineHeight: 1.25,
    whiteSpace: 'nowrap',
    color: colour,
    ...(capitals && { textTransform: 'uppercase' }),
    ...(outline && { WebkitTextStroke: `${outline.width * 10}px ${outline.colour}`, paintOrder: 'stroke fill' }),
    ...(shadow && { textShadow: `0 1px 4px ${shadow.colour}` }),
    ...(block && { bgcolor: block.colour, px: 1, borderRadius: `${Math.min(8, block.radius * 16)}px` }),
  } as const
}
