import { clamp } from '../clamp'
import type { Stack, LayoutNode } from '../model/layout'
import type { Seam } from './solve'
import { weightOf } from './weightOf'

/** The node at the end of `path` (child indices from the root). Throws RangeError when the path leads nowhere. */
export function nodeAt(root: LayoutNode, path: readonly number[]): LayoutNode {
  return path.reduce<LayoutNode>((node, index) => {
    const child = node.kind === 'stack' ? node.children[index] : undefined
    if (!child) throw new RangeError(`path: nothing at ${path.join('.')}`)
    return child.node
  }, root)
}

/**
 * Moves a seam so that it starts `position` pixels from the start of its stack, in place. The two neighbours share
 * what they had; neither gets less than `least` pixels.
 */
export function moveSeam(root: LayoutNode, seam: Seam, position: number, least = 32): void {
  const node = nodeAt(root, seam.path)
  if (node.kind !== 'stack') throw new RangeError('seam.path: does not lead to a stack')
  const { sizes } = seam
  const before = seamPosition(seam) - (sizes[seam.index] ?? 0)
  const pair = (sizes[seam.index] ?? 0) + (sizes[seam.index + 1] ?? 0)
  const first = Math.max(Math.min(least, pair / 2), Math.min(position - before, pair - Math.min(least, pair / 2)))
  const wanted = sizes.map((size, i) => {
    if (i === seam.index) return first
    return i === seam.index + 1 ? pair - first : size
  })
  setSizes(node, wanted, seam.stackLength)
}

/** Where a seam starts, px from the start of its stack. */
export function seamPosition({ sizes, gap, index }: Seam): number {
  return sizes.slice(0, index + 1).reduce((a, b) => a + b, 0) + gap * index
}

/** Writes solved sizes back as extents: weights in hundredths, all others as fractions of the stack's length. */
function setSizes(stack: Stack, sizes: readonly number[], stackLength: number): void {
  stack.children.forEach((child, i) => {
    const size = sizes[i] ?? 0
    if (child.extent.kind === 'weight') child.extent.weight = weightOf(size, stackLength)
    else child.extent = { kind: 'fixed', fraction: clamp(size / stackLength, { least: 0.001, most: 1 }) }
  })
}
