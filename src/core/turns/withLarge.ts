import type { Arrangement, LayoutNode } from '../model/layout'
import { panelsOf, panelsUnder } from '../layout/tree'
import type { RegionId } from '../model/ids'
import type { Region } from '../model/region'

/** Whoever speaks gets so many times as much room as the others beside them. */
const LARGER = 1.6

/**
 * An arrangement in which the panel of a region is large, the others where they are: in every stack on the way to it
 * its part gets more of what people's parts share, the others alike, whatever they had; it fills its part, and the
 * sizes are held. Null where nobody shares with it.
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
  const isPanel = (node: LayoutNode) => panelsUnder(node).some((p) => p.id === panel.id)
  const isPerson = (node: LayoutNode) => panelsUnder(node).some((p) => roles.has(p.role))
  let hasChanged = false
  const enlarged = (node: LayoutNode): LayoutNode => {
    if (node.kind === 'panel' && node.id === panel.id) return { ...node, fit: 'fill', held: true }
    if (node.kind !== 'stack' || !isPanel(node)) return node
    const sharing = node.children.filter((c) => c.extent.kind === 'weight' && isPerson(c.node))
    const isShared = sharing.length > 1 && sharing.some((c) => isPanel(c.node))
    hasChanged ||= isShared
    const least = Math.min(...sharing.map(({ extent }) => (extent.kind === 'weight' ? extent.weight : Infinity)))
    const weightOf = (part: LayoutNode) => ({ kind: 'weight', weight: isPanel(part) ? LARGER * least : least }) as const
    const children = node.children.map((c) => ({
      extent: isShared && sharing.includes(c) ? weightOf(c.node) : c.extent,
      node: enlarged(c.node),
    }))
    return { ...node, ...(isShared && { held: true }), children }
  }
  const tree = enlarged(arrangement.tree)
  return hasChanged ? { ...arrangement, tree } : null
}
