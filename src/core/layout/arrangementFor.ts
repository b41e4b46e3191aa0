import type { Arrangement, Layout, LayoutNode } from '../model/layout'
import type { Shape } from '../model/shape'

/** The arrangement a layout uses for a shape: its own for that shape, else one derived by rule (columns become rows in wide shapes). */
export function arrangementFor(layout: Layout, shape: Shape): Arrangement {
  const own = layout.perShape[shape.id]
  if (own) return own
  if (shape.width <= shape.height) return layout.arrangement
  return { ...layout.arrangement, tree: sideBySide(layout.arrangement.tree) }
}

function sideBySide(node: LayoutNode): LayoutNode {
  if (node.kind !== 'stack') return node
  return {
    ...node,
    axis: node.axis === 'column' ? 'row' : 'column',
    children: node.children.map((child) => ({ ...child, node: sideBySide(child.node) })),
  }
}
