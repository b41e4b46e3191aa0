import { z } from 'zod'
import { panelId, type PanelId } from './ids'
import { outline } from './outline'
import { role, type Role } from './region'

/** How a panel shows its region: *fill* crops to the panel's proportion, *whole* shows all of it over the backdrop. */
export const fit = z.enum(['fill', 'whole'])
export type Fit = z.infer<typeof fit>

/** Clockwise quarter turns. */
export const turn = z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)])
export type Turn = z.infer<typeof turn>

/** One place in a layout that shows a region. */
export const panel = z.object({
  kind: z.literal('panel'),
  id: panelId,
  role,
  fit: fit.default('fill'),
  zoom: z.number().min(1).max(20).default(1),
  turn: turn.default(0),
  /** Left and right changed over, before it is turned. */
  flip: z.boolean().default(false),
  /** Form, border and shadow here; null: those of the region. */
  outline: outline.nullable().default(null),
  opacity: z.number().min(0).max(1).default(1),
  /** Somebody chose how it fits: that stays. */
  held: z.boolean().optional(),
})

export type Panel = z.infer<typeof panel>

/** A panel by what makes it one; the rest plain. */
export function newPanel(id: PanelId, role: Role, as: Partial<Panel> = {}): Panel {
  return { kind: 'panel', id, role, fit: 'fill', zoom: 1, turn: 0, flip: false, outline: null, opacity: 1, ...as }
}
