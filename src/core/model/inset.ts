import { z } from 'zod'
import type { Range } from '../clamp'
import { insetId } from './ids'
import { panel } from './panel'

/** The nine points of the canvas that something can hang on: its corners, the middles of its edges, its middle. */
export const anchor = z.enum(['nw', 'n', 'ne', 'w', 'c', 'e', 'sw', 's', 'se'])
export type Anchor = z.infer<typeof anchor>

export const ANCHORS: readonly Anchor[] = anchor.options

/** How far from its anchor an inset is, as a share of the canvas. */
export const INSET_OFFSET: Range = { least: -1, most: 1 }
/** As a share of the canvas's width. */
export const INSET_WIDTH: Range = { least: 0.02, most: 1 }
/** Width over height. */
export const INSET_PROPORTION: Range = { least: 0.05, most: 20 }

/** A panel that lies over the stack, on its anchor, in a size of its own. */
export const inset = z.object({
  id: insetId,
  anchor,
  /** From the anchor rightwards, as a share of the canvas's width. */
  dx: z.number().min(INSET_OFFSET.least).max(INSET_OFFSET.most),
  /** From the anchor downwards, as a share of the canvas's height. */
  dy: z.number().min(INSET_OFFSET.least).max(INSET_OFFSET.most),
  /** A share of the canvas's width. */
  width: z.number().min(INSET_WIDTH.least).max(INSET_WIDTH.most),
  /** Width over height. */
  proportion: z.number().min(INSET_PROPORTION.least).max(INSET_PROPORTION.most),
  panel,
  /** Somebody put it there: it stays. */
  held: z.boolean().optional(),
})

export type Inset = z.infer<typeof inset>

/** Where an inset is: what hangs on an anchor. */
export type Hanging = Pick<Inset, 'anchor' | 'dx' | 'dy' | 'width' | 'proportion'>
