import { arrangementIn } from '../compose/arrangementIn'
import { hungOn } from '../layout/insets'
import { divide, insetRect, resolved, solve } from '../layout/solve'
import { weightOf } from '../layout/weightOf'
import type { Edit } from '../model/edit'
import type { PanelId } from '../model/ids'
import { ANCHORS } from '../model/inset'
import type { Arrangement, LayoutNode, Stack } from '../model/layout'
import type { Passage } from '../model/passage'
import type { Shape } from '../model/shape'
import type { Remedy } from './finding'

/** How much lower a band may become, as shares of what it is. */
const LOWER = [0.9, 0.8, 0.7, 0.6, 0.5] as const

/**
 * A shape's arrangement with the band that holds a panel lower and lower, what is taken from it going to the others;
 * nothing where the panel lies in no stack of several.
 */
export function lowerBands(edit: Edit, shape: Shape, passage: Passage, panelId: PanelId): Arrangement[] {
  const arrangement = arrangementIn(edit, passage, shape)
  const { tree } = arrangement
  if (tree.kind !== 'stack' || tree.children.length < 2) return []
  const index = tree.children.findIndex(({ node }) => holds(node, panelId))
  if (index < 0) return []
  const [length, across] = tree.axis === 'column' ? [shape.height, shape.width] : [shape.width, shape.height]
  const { sizes } = divide(
    length,
    tree.gap,
    tree.children.map((c) => resolved(c.extent, tree.axis, length, across)),
  )
  const own = sizes[index] ?? 0
  const rest = sizes.reduce((a, b) => a + b, 0) - own
  if (rest <= 0) return []
  return LOWER.map((share) => {
    const taken = own * (1 - share)
    const children = tree.children.map((child, i) => ({
      ...child,
      extent: {
        kind: 'weight' as const,
        weight: weightOf(i === index ? own * share : (sizes[i] ?? 0) * (1 + taken / rest), length),
      },
    }))
    return { ...arrangement, tree: { ...tree, children } }
  })
}

function holds(node: LayoutNode, panelId: PanelId): boolean {
  return node.kind === 'stack'
    ? node.children.some((c) => holds(c.node, panelId))
    : node.kind === 'panel' && node.id === panelId
}

/**
 * Each inset of a shape hung on another of the points of the canvas, as far from it as it is from its own; the
 * nearest first.
 */
export function movedInsets(edit: Edit, shape: Shape, passage: Passage): Remedy[] {
  const arrangement = arrangementIn(edit, passage, shape)
  return arrangement.insets.flatMap((inset) => {
    const from = insetRect(inset, shape)
    return ANCHORS.filter((a) => a !== inset.anchor && a !== 'c')
      .map((anchor) => ({ anchor, moved: hungOn(inset, anchor) }))
      .map((hung) => ({ ...hung, to: insetRect(hung.moved, shape) }))
      .sort((a, b) => Math.hypot(a.to.x - from.x, a.to.y - from.y) - Math.hypot(b.to.x - from.x, b.to.y - from.y))
      .map(({ anchor, moved }): Remedy => ({
        kind: 'move-inset',
        layoutId: passage.layoutId,
        shapeId: shape.id,
        insetId: inset.id,
        anchor,
        arrangement: { ...arrangement, insets: arrangement.insets.map((i) => (i.id === inset.id ? moved : i)) },
      }))
  })
}

/** The shape's bands the other way round; null where there is but one. */
export function swappedBands(edit: Edit, shape: Shape, passage: Passage): Remedy[] {
  const arrangement = arrangementIn(edit, passage, shape)
  const { tree } = arrangement
  if (tree.kind !== 'stack' || tree.axis !== 'column' || tree.children.length < 2) return []
  const turned: Stack = { ...tree, children: tree.children.toReversed() }
  return [
    {
      kind: 'swap-bands',
      layoutId: passage.layoutId,
      shapeId: shape.id,
      arrangement: { ...arrangement, tree: turned },
    },
  ]
}

/** Canvas pixels that no panel and no area for words covers, as long as panels' pictures fill them. */
export function barePixels(arrangement: Arrangement, shape: Shape): number {
  const { panels, areas } = solve(arrangement, shape)
  const rects = [...panels, ...areas].map((p) => p.rect)
  const xs = [...new Set([0, shape.width, ...rects.flatMap((r) => [r.x, r.x + r.width])])].sort((a, b) => a - b)
  const ys = [...new Set([0, shape.height, ...rects.flatMap((r) => [r.y, r.y + r.height])])].sort((a, b) => a - b)
  let bare = 0
  for (const [i, x] of xs.slice(0, -1).entries())
    for (const [j, y] of ys.slice(0, -1).entries()) {
      const [right = x, lower = y] = [xs[i + 1], ys[j + 1]]
      if (!rects.some((r) => r.x <= x && r.y <= y && r.x + r.width >= right && r.y + r.height >= lower))
        bare += (right - x) * (lower - y)
    }
  return bare
}
