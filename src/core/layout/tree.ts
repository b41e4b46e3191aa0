import type { PanelId } from '../model/ids'
import type { Area, Arrangement, LayoutNode, Stack, StackChild } from '../model/layout'
import type { Panel } from '../model/panel'

/**
 * Every panel of an arrangement in drawing order: the stack's, then the insets'. Those of a draft are the draft's
 * own.
 */
export function panelsOf({ tree, insets }: Arrangement): Panel[] {
  return [...panelsUnder(tree), ...insets.map((i) => i.panel)]
}

/** Every panel in a node, itself or below it. */
export function panelsUnder(node: LayoutNode): Panel[] {
  if (node.kind === 'panel') return [node]
  return node.kind === 'stack' ? node.children.flatMap((c) => panelsUnder(c.node)) : []
}

/**
 * Whether two trees have the same places, whichever way their stacks go: a path through one leads to the same place
 * in the other.
 */
export function sameStructure(a: LayoutNode, b: LayoutNode): boolean {
  if (a.kind !== 'stack' || b.kind !== 'stack') return a.kind === b.kind
  return (
    a.children.length === b.children.length &&
    a.children.every((child, i) => sameStructure(child.node, b.children[i]?.node ?? a))
  )
}

/** An arrangement with other nodes in the place of each panel that `replace` gives one for. */
export function replacePanels({ tree, insets, backdrop }: Arrangement, replace: (panel: Panel) => Panel): Arrangement {
  const inTree = (node: LayoutNode): LayoutNode => {
    if (node.kind === 'panel') return replace(node)
    return node.kind === 'stack'
      ? { ...node, children: node.children.map((c) => ({ ...c, node: inTree(c.node) })) }
      : node
  }
  return { tree: inTree(tree), insets: insets.map((i) => ({ ...i, panel: replace(i.panel) })), backdrop }
}

/**
 * A new last child of the outermost stack, as large as the others on average. What was no stack becomes one, from top
 * to bottom.
 */
export function withBand(tree: LayoutNode, node: LayoutNode): LayoutNode {
  if (tree.kind !== 'stack')
    return {
      kind: 'stack',
      axis: 'column',
      gap: 0,
      children: [tree, node].map((n) => ({ extent: { kind: 'weight', weight: 1 }, node: n })),
    }
  const weights = tree.children.flatMap(({ extent }) => (extent.kind === 'weight' ? [extent.weight] : []))
  const weight = weights.length > 0 ? weights.reduce((a, b) => a + b, 0) / weights.length : 1
  return { ...tree, children: [...tree.children, { extent: { kind: 'weight', weight }, node }] }
}

/** Of the outermost stack's length, what an area for words takes first. */
const AREA_SHARE = 0.16

/** An area for words: titles above everything, captions under it. What was no stack becomes one, from top to bottom. */
export function withArea(tree: LayoutNode, area: Area): LayoutNode {
  const stack: Stack =
    tree.kind === 'stack' && tree.axis === 'column'
      ? tree
      : { kind: 'stack', axis: 'column', gap: 0, children: [{ extent: { kind: 'weight', weight: 1 }, node: tree }] }
  const child: StackChild = { extent: { kind: 'fixed', fraction: AREA_SHARE }, node: area }
  return { ...stack, children: area.kind === 'titleArea' ? [child, ...stack.children] : [...stack.children, child] }
}

/** A tree whose outermost bands are all as large as each other; areas for words and spaces stay as they are. */
export function withEqualBands(tree: LayoutNode): LayoutNode {
  if (tree.kind !== 'stack') return tree
  const isBand = ({ node }: StackChild) => node.kind === 'panel' || node.kind === 'stack'
  return {
    ...tree,
    children: tree.children.map((c) => (isBand(c) ? { ...c, extent: { kind: 'weight', weight: 1 } } : c)),
  }
}

/** A tree without the nodes that `gone` picks; a stack of one is that one. Null when nothing is left. */
export function without(node: LayoutNode, gone: (node: LayoutNode) => boolean): LayoutNode | null {
  if (gone(node)) return null
  if (node.kind !== 'stack') return node
  const children = node.children.flatMap((c) => {
    const kept = without(c.node, gone)
    return kept ? [{ ...c, node: kept }] : []
  })
  if (children.length === node.children.length) return { ...node, children }
  const [only] = children
  return children.length > 1 ? { ...node, children } : (only?.node ?? null)
}

export const isPanel = (id: PanelId) => (node: LayoutNode) => node.kind === 'panel' && node.id === id
