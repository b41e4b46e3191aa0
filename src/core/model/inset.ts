import { z } from 'zod'
import { insetId } from './ids'
import { panel } from './panel'

/** The nine points of the canvas that something can hang on: its corners, the middles of its edges, its middle. */
export const anchor = z.enum(['nw', 'n', 'ne', 'w', 'c', 'e', 'sw', 's', 'se'])
export type Anchor = z.infer<typeof anchor>

export const ANCHORS: readonly Anchor[] = anchor.options

/** A panel that lies over the stack, on its anchor, in a size of its own. */
export const inset = z.object({
  id: insetId,
  anchor,
  /** From the anchor rightwards, as a share of the canvas's width. */
  dx: z.number().min(-1).max(1),
  /** From the anchor downwards, as a share of the canvas's height. */
  dy: z.number().min(-1).max(1),
  /** A share of the canvas's width. */
  width: z.number().min(0.02).max(1),
  /** Width over height. */
  proportion: z.number().min(0.05).max(20),
  panel,
})

export type Inset = z.infer<typeof inset>

/** Where an inset is: what hangs on an anchor. */
export type Hanging = Pick<Inset, 'anchor' | 'dx' | 'dy' | 'width' | 'proportion'>
