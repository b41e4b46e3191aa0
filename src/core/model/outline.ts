import { z } from 'zod'
import { colour } from './colour'

/**
 * The form that a picture is cut to. `radius` is a share of the shorter side, 0.5 at most; an ellipse in a square is
 * a circle.
 */
export const mask = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('rectangle') }),
  z.object({ kind: z.literal('rounded'), radius: z.number().min(0).max(0.5) }),
  z.object({ kind: z.literal('ellipse') }),
])
export type Mask = z.infer<typeof mask>

/** A line along the inside of the form. `width` is a share of the canvas's width. */
export const border = z.object({ width: z.number().positive().max(0.05), colour })

/** A soft shadow that falls a little downwards. `blur` is a share of the canvas's width; `opacity` 0..1. */
export const shadow = z.object({ blur: z.number().min(0).max(0.1), opacity: z.number().min(0).max(1) })

/** How a region looks at its edges wherever a panel shows it. */
export const outline = z.object({ mask, border: border.nullable(), shadow: shadow.nullable() })
export type Outline = z.infer<typeof outline>

export const PLAIN_OUTLINE: Outline = { mask: { kind: 'rectangle' }, border: null, shadow: null }
