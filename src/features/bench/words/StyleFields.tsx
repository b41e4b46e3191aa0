'use client'

import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import type { TextStyle } from '@/core/model/textStyle'
import { ColourField } from '@/ui/ColourField'
import { NumberField } from '@/ui/NumberField'
import { PercentField } from '@/ui/PercentField'
import { FontField } from './FontField'
import { textSize } from '@/ui/theme'
import { wording } from './wording'

const ALIGN: Record<TextStyle['align'], string> = {
  start: wording.atTheStart,
  middle: wording.inTheMiddle,
  end: wording.atTheEnd,
}
const PLACE: Record<TextStyle['place'], string> = {
  top: wording.atTheTop,
  middle: wording.inTheMiddle,
  bottom: wording.atTheBottom,
  near: wording.closeToThePicture,
}
const ENTRY: Record<TextStyle['entry'], string> = {
  none: wording.atOnce,
  fade: wording.fadingIn,
  pop: wording.withABounce,
}
const EMPHASIS: Record<TextStyle['emphasis']['kind'], string> = {
  none: wording.notMarked,
  colour: wording.inAColour,
  box: wording.inABox,
  enlarge: 'larger',
}

const A_COLOUR = '#F2C94C'

function emphasisAs(known: TextStyle['emphasis'], kind: TextStyle['emphasis']['kind']): TextStyle['emphasis'] {
  const colour = known.kind === 'none' ? A_COLOUR : known.colour
  if (kind === 'none') return { kind }
  return kind === 'enlarge' ? { kind, colour, by: 1.18 } : { kind, colour }
}

/**
 * Every part of a style that is not the choice of one: font, size, colours, where it stands, how it comes in.
 * `spoken`: whether it is set in words that are spoken.
 */
export function StyleFields({
  style,
  spoken,
  onSet,
}: {
  style: TextStyle
  spoken: boolean
  onSet: (change: Partial<TextStyle>, gesture?: string) => void
}) {
  const { outline, shadow, block, emphasis } = style
  const choice = <K extends string>(
    label: string,
    value: K,
    choices: Record<K, string>,
    onChoose: (value: K) => void,
  ) => (
    <TextField select size="small" label={label} value={value} onChange={(e) => onChoose(e.target.value as K)}>
      {Object.entries<string>(choices).map(([key, words]) => (
        <MenuItem key={key} value={key}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  )
  const part = <K extends 'outline' | 'shadow' | 'block'>(key: K, label: string, first: NonNullable<TextStyle[K]>) => {
    const there = style[key]
    return (
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
        <FormControlLabel
          control={
            <Checkbox size="small" checked={there !== null} onChange={(_, on) => onSet({ [key]: on ? first : null })} />
          }
          label={label}
          slotProps={{ typography: { sx: { fontSize: textSize.note } } }}
        />
        {there && (
          <ColourField
            bare
            label={wording.colourOfThe(label.toLowerCase())}
            value={there.colour}
            onSet={(colour, gesture) => onSet({ [key]: { ...there, colour } }, gesture)}
          />
        )}
      </Box>
    )
  }
  return (
    <>
      <FontField style={style} onSet={onSet} />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 3, rowGap: 2, alignItems: 'center' }}>
        {choice(wording.set, style.align, ALIGN, (align) => onSet({ align }))}
        {choice(wording.inItsArea, style.place, PLACE, (place) => onSet({ place }))}
        {choice(wording.comesIn, style.entry, ENTRY, (entry) => onSet({ entry }))}
        {spoken ? (
          choice(wording.theSpokenWord, emphasis.kind, EMPHASIS, (kind) =>
            onSet({ emphasis: emphasisAs(emphasis, kind) }),
          )
        ) : (
          <span />
        )}
        <ColourField
          label={wording.letters}
          value={style.colour}
          onSet={(colour, gesture) => onSet({ colour }, gesture)}
        />
        {spoken && emphasis.kind !== 'none' ? (
          <ColourField
            label={wording.theSpokenWordsColour}
            value={emphasis.colour}
            onSet={(colour, gesture) => onSet({ emphasis: { ...emphasis, colour } }, gesture)}
          />
        ) : (
          <span />
        )}
        {part('outline', wording.ring, outline ?? { colour: '#101410', width: 0.12 })}
        {part('shadow', wording.shadow, shadow ?? { colour: '#000000', blur: 0.3, drop: 0.05, opacity: 0.8 })}
        {part('block', wording.ground, block ?? { behind: 'line', colour: '#101410', opacity: 0.8, radius: 0.16 })}
        {block ? (
          <FormControlLabel
            control={
              <Checkbox
                size="small"
                checked={block.behind === 'whole'}
                onChange={(_, whole) => onSet({ block: { ...block, behind: whole ? 'whole' : 'line' } })}
              />
            }
            label={wording.oneGroundForAllLines}
            slotProps={{ typography: { sx: { fontSize: textSize.note } } }}
          />
        ) : (
          <span />
        )}
        <FormControlLabel
          control={<Checkbox size="small" checked={style.capitals} onChange={(_, capitals) => onSet({ capitals })} />}
          label={wording.capitals}
          slotProps={{ typography: { sx: { fontSize: textSize.note } } }}
        />
        <span />
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1.5, alignItems: 'center' }}>
        <PercentField
          label={wording.lettersOfTheShorterSide}
          least={2}
          most={30}
          step={0.5}
          decimals={1}
          value={style.size}
          onSet={(share, gesture) => onSet({ size: share }, gesture)}
        />
        <NumberField
          label={wording.linesAtMost}
          unit=""
          least={1}
          most={3}
          step={1}
          value={style.lines}
          onSet={(lines, gesture) => onSet({ lines }, gesture)}
        />
      </Box>
    </>
  )
}
