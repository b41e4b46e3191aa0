import { z } from 'zod'
import { colour } from './colour'
import { DEFAULT_FONT } from './fonts'

/** How words look. Lengths are shares, so that a style serves every shape. */
export const textStyle = z.object({
  /** A family: one of those that come with the application, or one that came along. */
  font: z.string().min(1).max(100),
  weight: z.number().int().min(100).max(900),
  /** Height of the letters' em as a share of the canvas's shorter side; words that do not fit are set smaller. */
  size: z.number().min(0.02).max(0.3),
  capitals: z.boolean(),
  colour,
  /** Round the letters; `width` is a share of the em. */
  outline: z.object({ colour, width: z.number().positive().max(0.4) }).nullable(),
  /** Behind the letters, straight below. `blur` and `drop` are shares of the em. */
  shadow: z
    .object({
      colour,
      blur: z.number().min(0).max(1),
      drop: z.number().min(0).max(0.5),
      opacity: z.number().min(0).max(1),
    })
    .nullable(),
  /** Behind each line by itself, or behind all of them. `radius` is a share of the em. */
  block: z
    .object({
      behind: z.enum(['line', 'whole']),
      colour,
      opacity: z.number().min(0).max(1),
      radius: z.number().min(0).max(1),
    })
    .nullable(),
  align: z.enum(['start', 'middle', 'end']),
  /**
   * Where in their area, up and down; *near*: at the edge that is closer to the middle of the canvas, where the
   * picture is.
   */
  place: z.enum(['top', 'middle', 'bottom', 'near']),
  /** At most so many. */
  lines: z.number().int().min(1).max(3),
  entry: z.enum(['none', 'fade', 'pop']),
  /** How the word that is being spoken stands out. */
  emphasis: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('none') }),
    z.object({ kind: z.literal('colour'), colour }),
    z.object({ kind: z.literal('box'), colour }),
    z.object({ kind: z.literal('enlarge'), colour, by: z.number().min(1).max(1.6) }),
  ]),
})

export type TextStyle = z.infer<typeof textStyle>

export const PLAIN_TEXT: TextStyle = {
  font: DEFAULT_FONT,
  weight: 700,
  size: 0.058,
  capitals: false,
  colour: '#ffffff',
  outline: null,
  shadow: { colour: '#000000', blur: 0.3, drop: 0.05, opacity: 0.8 },
  block: null,
  align: 'middle',
  place: 'middle',
  lines: 2,
  entry: 'none',
  emphasis: { kind: 'none' },
}
