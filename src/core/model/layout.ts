import { z } from 'zod'
import { backdrop } from './backdrop'
import { highlightId, layoutId, type ImageFileId } from './ids'
import { inset } from './inset'
import { panel, type Panel } from './panel'
import { recordBase, title } from './record'
import { tag } from './tag'

/** Where words go; what they are is the highlight's own. */
export const titleArea = z.object({ kind: z.literal('titleArea') })
export const captionArea = z.object({ kind: z.literal('captionArea') })
export const space = z.object({ kind: z.literal('space') })

export type Area = z.infer<typeof titleArea> | z.infer<typeof captionArea>
export type Space = z.infer<typeof space>

/**
 * How much of a stack a child takes: a share of what is left, a fixed fraction of the stack's length, or as much as
 * gives it a proportion (width over height), up to a fraction `most`.
 */
export const extent = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('weight'), weight: z.number().positive().max(100_000) }),
  z.object({ kind: z.literal('fixed'), fraction: z.number().positive().max(1) }),
  z.object({ kind: z.literal('shaped'), proportion: z.number().min(0.05).max(20), most: z.number().positive().max(1) }),
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
  /** Somebody set its sizes: they stay. */
  held?: boolean
  children: StackChild[]
}

export type Leaf = Panel | Area | Space
export type LayoutNode = Leaf | Stack

export const layoutNode: z.ZodType<LayoutNode> = z.lazy(() =>
  z.discriminatedUnion('kind', [panel, titleArea, captionArea, space, stack]),
)

/** So many children a stack has at most. */
export const MAX_BANDS = 12
export const MAX_INSETS = 12

export const stack = z.object({
  kind: z.literal('stack'),
  axis: z.enum(['column', 'row']),
  gap: z.number().min(0).max(400),
  held: z.boolean().optional(),
  get children() {
    return z
      .array(z.object({ extent, node: layoutNode }))
      .min(1)
      .max(MAX_BANDS)
  },
})

/** A tree of stacks, what lies over it (later over earlier) and what lies behind. */
export const arrangement = z.object({ tree: layoutNode, insets: z.array(inset).max(MAX_INSETS).default([]), backdrop })
export type Arrangement = z.infer<typeof arrangement>

/** How panels are arranged in an output. Asks for roles, not for regions. */
export const layout = recordBase.extend({
  id: layoutId,
  name: title,
  /** Used for every shape that has none of its own in `perShape`. */
  arrangement,
  perShape: z.record(z.string().max(80), arrangement).default({}),
  /** Whether each shape is arranged by what the regions show there; else `arrangement` is carried over by rule. */
  adapts: z.boolean().optional(),
  /** The highlight whose working copy this is, or null for one that is kept for all. */
  ownedBy: highlightId.nullable(),
  tags: z.array(tag).max(20).default([]),
  /** For a working copy: the kept layout that it was taken from or kept as. */
  basedOn: layoutId.nullable().default(null),
})

export type Layout = z.infer<typeof layout>

/** A layout by what makes it one; the rest as it is for a new one. */
export function newLayout(made: Omit<Layout, 'perShape' | 'tags' | 'basedOn'> & Partial<Layout>): Layout {
  return { perShape: {}, tags: [], basedOn: null, ...made }
}

/** The pictures that lie behind the panels of layouts. */
export function picturesOfLayouts(layouts: readonly Pick<Layout, 'arrangement' | 'perShape'>[]): ImageFileId[] {
  const backdrops = layouts.flatMap((l) => [l.arrangement, ...Object.values(l.perShape)]).map((a) => a.backdrop)
  return backdrops.flatMap((b) => (b.kind === 'image' ? [b.imageFileId] : []))
}
