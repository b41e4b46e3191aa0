import type { Arrangement, LayoutNode, Stack } from '../model/layout'
import { panelsOf } from '../layout/tree'
import type { RegionId } from '../model/ids'
import type { Region } from '../model/region'

/** Whoever speaks gets so many times as much room as the others beside them. */
const LARGER = 1.6

/**
 * An arrangement in which the panel of a region is large, the others where they are: in every stack on the way to it
 * its part gets more of what people's parts share, which it fills, and the sizes are held. Null where nobody shares
 * with it.
 */
export function withLarge(
  arrangement: Arrangement,
  regions: readonly Region[],
  regionId: RegionId,
  people: readonly Region[],
): Arrangement | null {
  const region = regions.find((r) => r.id === regionId)
  if (!region) return null
  const place = regions.filter((r) => r.role === region.role).indexOf(region)
  const panel = panelsOf(arrangement).filter((p) => p.role === region.role)[place]
  if (!panel) return null
  const roles = new Set(people.map((p) => p.role))
  const holds = (node: LayoutNode, test: (n: Extract<LayoutNode, { kind: 'panel' }>) => boolean): boolean =>
    node.kind === 'panel' ? test(node) : node.kind === 'stack' && node.children.some((c) => holds(c.node, test))
  const isPerson = (node: LayoutNode) => holds(node, (p) => roles.has(p.role))
  let hasChanged = false
  const inTree = (node: LayoutNode): LayoutNode => {
    if (node.kind === 'panel' && node.id === panel.id) return { ...node, fit: 'fill', held: true }
    if (node.kind !== 'stack' || !holds(node, (p) => p.id === panel.id)) return node
    const sharing = node.children.filter((c) => c.extent.kind === 'weight' && isPerson(c.node))
    const isShared = sharing.length > 1 && sharing.some((c) => holds(c.node, (p) => p.id === panel.id))
    hasChanged ||= isShared
    return { ...node, ...(isShared && { held: true }), children: node.children.map((c) => grown(c, isShared)) }
  }
  const grown = (child: Stack['children'][number], isShared: boolean): Stack['children'][number] => {
    const { extent, node } = child
    const isLarge = holds(node, (p) => p.id === panel.id)
    const grows = isShared && isLarge && extent.kind === 'weight'
    return { extent: grows ? { ...extent, weight: extent.weight * LARGER } : extent, node: inTree(node) }
  }
  const tree = inTree(arrangement.tree)
  return hasChanged ? { ...arrangement, tree } : null
}
