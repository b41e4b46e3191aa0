import { z } from 'zod'
import { colour } from './colour'
import { highlightId, layoutId, panelId } from './ids'
import { recordBase, title } from './record'
import { role } from './region'

/** How a panel shows its region: *fill* crops to the panel's proportion, *whole* shows all of it over the backdrop. */
export const fit = z.enum(['fill', 'whole'])

export const panel = z.object({
  kind: z.literal('panel'),
  id: panelId,
  role,
  fit: fit.default('fill'),
  zoom: z.number().min(1).max(20).default(1),
})

export const space = z.object({ kind: z.literal('space') })

export type Panel = z.infer<typeof panel>
export type Space = z.infer<typeof space>

/** How much of a stack a child takes: a share of what is left, or a fixed fraction of the stack's length. */
export const extent = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('weight'), weight: z.number().positive().max(1000) }),
  z.object({ kind: z.literal('fixed'), fraction: z.number().positive().max(1) }),
])
export type Extent = z.infer<typeof extent>

export interface StackChild {
  extent: Extent
  node: LayoutNode
}

export interface Stack {
  kind: 'stack'
  axis: 'column' | 'row'
  /** Pixels of canvas between neighbours; made even when solved. */
  gap: number
  children: StackChild[]
}

export type LayoutNode = Panel | Space | Stack

export const layoutNode: z.ZodType<LayoutNode> = z.lazy(() => z.discriminatedUnion('kind', [panel, space, stack]))

export const stack = z.object({
  kind: z.literal('stack'),
  axis: z.enum(['column', 'row']),
  gap: z.number().min(0).max(400),
  get children() {
    return z.array(z.object({ extent, node: layoutNode })).min(1).max(12)
  },
})

/** What lies behind all panels. */
export const backdrop = z.discriminatedUnion('kind', [z.object({ kind: z.literal('colour'), colour })])
export type Backdrop = z.infer<typeof backdrop>

export const arrangement = z.object({ tree: layoutNode, backdrop })
export type Arrangement = z.infer<typeof arrangement>

/** How panels are arranged in an output. Asks for roles, not for regions. */
export const layout = recordBase.extend({
  id: layoutId,
  name: title,
  /** Used for every shape that has none of its own in `perShape`. */
  arrangement,
  perShape: z.record(z.string().max(80), arrangement).default({}),
  ownedBy: highlightId.nullable(),
})

export type Layout = z.infer<typeof layout>
