import { PLAIN_TEXT, type TextStyle } from '../model/textStyle'

/** A style to begin with, by a name of its own. */
export interface StartingStyle {
  id: string
  name: string
  purpose: string
  style: TextStyle
}

const style = (changes: Partial<TextStyle>): TextStyle => ({ ...PLAIN_TEXT, ...changes })

const INK = '#20261F'
const PAPER = '#F4F2EC'
const LEAF = '#2E5E3E'
const SUN = '#F2C94C'

export const CAPTION_STYLES: readonly StartingStyle[] = [
  { id: 'plain', name: 'Plain', purpose: 'White with a soft shadow', style: style({}) },
  {
    id: 'paper-slip',
    name: 'Paper slip',
    purpose: 'Dark on a paper strip behind each line',
    style: style({
      colour: INK,
      weight: 600,
      shadow: null,
      block: { behind: 'line', colour: PAPER, opacity: 0.95, radius: 0.16 },
    }),
  },
  {
    id: 'night-slip',
    name: 'Night slip',
    purpose: 'White on one dark block, easy to read over anything',
    style: style({
      weight: 500,
      size: 0.05,
      shadow: null,
      block: { behind: 'whole', colour: '#101410', opacity: 0.72, radius: 0.3 },
    }),
  },
  {
    id: 'ringed',
    name: 'Ringed',
    purpose: 'White letters with a dark ring round them',
    style: style({ font: 'Archivo', weight: 800, shadow: null, outline: { colour: '#101410', width: 0.16 } }),
  },
  {
    id: 'loudhailer',
    name: 'Loudhailer',
    purpose: 'Large capitals that come in with a bounce',
    style: style({
      font: 'Anton',
      weight: 400,
      size: 0.088,
      capitals: true,
      shadow: null,
      outline: { colour: '#101410', width: 0.12 },
      entry: 'pop',
      emphasis: { kind: 'colour', colour: SUN },
    }),
  },
  {
    id: 'sunlit',
    name: 'Sunlit',
    purpose: 'The word being spoken lights up',
    style: style({
      font: 'Archivo',
      weight: 700,
      outline: { colour: '#101410', width: 0.1 },
      emphasis: { kind: 'colour', colour: SUN },
    }),
  },
  {
    id: 'tagged',
    name: 'Tagged',
    purpose: 'A box moves from word to word',
    style: style({ font: 'Archivo', weight: 700, emphasis: { kind: 'box', colour: LEAF } }),
  },
  {
    id: 'swell',
    name: 'Swell',
    purpose: 'The word being spoken grows',
    style: style({
      font: 'Fredoka',
      weight: 600,
      outline: { colour: '#101410', width: 0.1 },
      shadow: null,
      emphasis: { kind: 'enlarge', colour: '#9FE0B4', by: 1.18 },
    }),
  },
  {
    id: 'logbook',
    name: 'Logbook',
    purpose: 'A book face that fades in, for quiet talk',
    style: style({ font: 'Lora', weight: 500, size: 0.052, entry: 'fade' }),
  },
  {
    id: 'scribble',
    name: 'Scribble',
    purpose: 'Handwriting on a note',
    style: style({
      font: 'Caveat',
      weight: 700,
      size: 0.078,
      colour: INK,
      shadow: null,
      block: { behind: 'line', colour: SUN, opacity: 0.95, radius: 0.08 },
    }),
  },
]

export const TITLE_STYLES: readonly StartingStyle[] = [
  {
    id: 'headline',
    name: 'Headline',
    purpose: 'Heavy, white, ringed',
    style: style({
      font: 'Archivo',
      weight: 800,
      size: 0.09,
      shadow: null,
      outline: { colour: '#101410', width: 0.12 },
      lines: 3,
    }),
  },
  {
    id: 'label',
    name: 'Label',
    purpose: 'Dark on paper',
    style: style({
      font: 'Archivo',
      weight: 700,
      size: 0.07,
      colour: INK,
      shadow: null,
      block: { behind: 'whole', colour: PAPER, opacity: 1, radius: 0.2 },
      lines: 3,
    }),
  },
  {
    id: 'banner',
    name: 'Banner',
    purpose: 'White on leaf green',
    style: style({
      font: 'Archivo',
      weight: 700,
      size: 0.07,
      shadow: null,
      block: { behind: 'whole', colour: LEAF, opacity: 1, radius: 0.1 },
      lines: 3,
    }),
  },
  {
    id: 'bare',
    name: 'Bare',
    purpose: 'Dark letters alone, for a light ground',
    style: style({ font: 'Archivo', weight: 700, size: 0.075, colour: INK, shadow: null, lines: 3 }),
  },
]
