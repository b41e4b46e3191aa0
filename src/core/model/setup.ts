import { z } from 'zod'
import { highlightId, setupId } from './ids'
import { recordBase, title } from './record'
import { region } from './region'

/** A named set of regions: where things are in one arrangement of a recorder's screen. */
export const setup = recordBase.extend({
  id: setupId,
  name: title,
  regions: z.array(region).max(40),
  /** The highlight whose working copy this is, or null for one that is kept for all. */
  ownedBy: highlightId.nullable(),
})

export type Setup = z.infer<typeof setup>
