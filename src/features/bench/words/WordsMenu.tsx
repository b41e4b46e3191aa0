'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ButtonBase from '@mui/material/ButtonBase'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { useEffect, useRef, useState } from 'react'
import type { TextStyle } from '@/core/model/textStyle'
import { CAPTION_STYLES, TITLE_STYLES, type StartingStyle } from '@/core/words/textStyles'
import { loadFonts } from '@/media/fonts/loadFonts'
import { NumberField } from '@/ui/NumberField'
import { Ticket } from '@/ui/Ticket'
import { fonts, palette } from '@/ui/theme'
import { useBenchContext, useHighlight } from '../benchContext'
import { addTitle, editTitle, removeTitle, setCaptions } from './wording'

/** How words look: the title, and the captions that the Sheet holds. */
export function WordsMenu() {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  return (
    <>
      <Button onClick={(e) => setAnchor(e.currentTarget.closest('section'))} aria-haspopup="dialog">
        Words
      </Button>
      {anchor && <Words anchor={anchor} onClose={() => setAnchor(null)} />}
    </>
  )
}

function Words({ anchor, onClose }: { anchor: HTMLElement; onClose: () => void }) {
  const { session } = useBenchContext()
  const { words } = useHighlight()
  const [title] = words.titles
  const gesture = useRef(crypto.randomUUID())
  const write = (text: string) => {
    if (title && text === '') removeTitle(session, title.id)
    else if (title) editTitle(session, title.id, 'Write the title', { text }, gesture.current)
    else if (text !== '') addTitle(session, text)
  }
  const change = (label: string, part: Partial<TextStyle>) => setCaptions(session, label, { style: { ...words.captions.style, ...part } })
  return (
    <Ticket label="Words" anchor={anchor} onClose={onClose} side="beside" width={420} gap={3}>
      <TextField label="Title" size="small" multiline maxRows={3} value={title?.text ?? ''} onChange={(e) => write(e.target.value)} slotProps={{ htmlInput: { maxLength: 500 } }} />
      {title && <Styles label="Title style" choices={TITLE_STYLES} chosen={title.style} onChoose={(style) => editTitle(session, title.id, 'Title style', { style })} />}
      <FormControlLabel control={<Checkbox size="small" checked={words.captions.shown} onChange={(_, shown) => setCaptions(session, shown ? 'Show captions' : 'Hide captions', { shown })} />} label={words.cues.length === 0 ? 'Captions on the picture (there are none yet)' : 'Captions on the picture'} slotProps={{ typography: { sx: { fontSize: 12.5 } } }} />
      <Styles label="Caption style" choices={CAPTION_STYLES} chosen={words.captions.style} onChoose={(style) => setCaptions(session, 'Caption style', { style })} />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1.5, alignItems: 'center' }}>
        <NumberField label="Letters, of the shorter side" unit="%" least={2} most={30} step={0.5} decimals={1} value={words.captions.style.size * 100} onSet={(percent) => change('Size of captions', { size: percent / 100 })} />
        <NumberField label="Lines at most" unit="" least={1} most={3} step={1} value={words.captions.style.lines} onSet={(lines) => change('Lines of captions', { lines })} />
      </Box>
    </Ticket>
  )
}

const loadSamples = (choices: readonly StartingStyle[]) => Promise.all(choices.map(({ name, style }) => loadFonts(name, style)))

function Styles({ label, choices, chosen, onChoose }: { label: string; choices: readonly StartingStyle[]; chosen: TextStyle; onChoose: (style: TextStyle) => void }) {
  useEffect(() => void loadSamples(choices).catch(() => {}), [choices])
  return (
    <Box role="group" aria-label={label} sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(112px, 1fr))', gap: 1 }}>
      {choices.map(({ id, name, purpose, style }) => (
        <ButtonBase
          key={id}
          title={purpose}
          aria-pressed={isLike(style, chosen)}
          onClick={() => onChoose(style)}
          sx={{ height: 40, px: 1, borderRadius: '3px', bgcolor: isDark(style.colour) && !style.block ? '#C9CCC6' : palette.mat, overflow: 'hidden', ...(isLike(style, chosen) && { outline: `2px solid ${palette.leaf}`, outlineOffset: 1 }), '&:focus-visible': { outline: `2px solid ${palette.straw}`, outlineOffset: 1 } }}
        >
          <Box component="span" sx={sample(style)}>
            {name}
          </Box>
        </ButtonBase>
      ))}
    </Box>
  )
}

/** Styles are told apart by all but what is set beside them: size and lines. */
const isLike = (a: TextStyle, b: TextStyle) => JSON.stringify({ ...a, size: 0, lines: 0 }) === JSON.stringify({ ...b, size: 0, lines: 0 })

const isDark = (colour: string) => [1, 3, 5].every((at) => parseInt(colour.slice(at, at + 2), 16) < 100)

/** A name in its own style, as near as a page comes to it. */
function sample({ font, weight, colour, capitals, outline, shadow, block }: TextStyle) {
  return {
    fontFamily: `"${font}", ${fonts.text}`,
    fontWeight: weight,
    fontSize: 16,
    lineHeight: 1.25,
    whiteSpace: 'nowrap',
    color: colour,
    ...(capitals && { textTransform: 'uppercase' }),
    ...(outline && { WebkitTextStroke: `${outline.width * 10}px ${outline.colour}`, paintOrder: 'stroke fill' }),
    ...(shadow && { textShadow: `0 1px 4px ${shadow.colour}` }),
    ...(block && { bgcolor: block.colour, px: 1, borderRadius: `${Math.min(8, block.radius * 16)}px` }),
  } as const
}
