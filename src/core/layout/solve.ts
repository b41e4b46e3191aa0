import { assertNever } from '../assert'
import type { Rect, Size } from '../geometry/rect'
import type { Arrangement, Extent, LayoutNode, Panel, Stack } from '../model/layout'

/** A panel with its place on the canvas: integer, even pixels. */
export interface SolvedPanel {
  panel: Panel
  rect: Rect
}

/** A line between two neighbours of a stack that can be dragged; `path` leads from the tree's root to the stack. */
export interface Seam {
  path: readonly number[]
  /** The seam lies between children `index` and `index + 1`. */
  index: number
  axis: 'column' | 'row'
  /** The strip between the two neighbours; has no thickness when the gap is 0. */
  rect: Rect
  /** Length of the stack along its axis, in pixels. */
  stackLength: number
}

export interface Solved {
  panels: SolvedPanel[]
  seams: Seam[]
}

/**
 * Places every leaf of an arrangement on a canvas of even size ≥ 64 × 64. All rectangles are even integers, meet exactly
 * and sum to the canvas exactly. Throws RangeError for a canvas that is odd or too small.
 */
export function solve(arrangement: Arrangement, canvas: Size): Solved {
  for (const side of ['width', 'height'] as const)
    if (canvas[side] < 64 || canvas[side] % 2 !== 0) throw new RangeError(`canvas.${side}: ${canvas[side]} is not an even number ≥ 64`)
  const solved: Solved = { panels: [], seams: [] }
  place(arrangement.tree, { x: 0, y: 0, ...canvas }, [], solved)
  return solved
}

function place(node: LayoutNode, rect: Rect, path: readonly number[], into: Solved): void {
  switch (node.kind) {
    case 'panel':
      into.panels.push({ panel: node, rect })
      return
    case 'space':
      return
    case 'stack':
      placeStack(node, rect, path, into)
      return
    default:
      assertNever(node)
  }
}

function placeStack(stack: Stack, rect: Rect, path: readonly number[], into: Solved): void {
  const column = stack.axis === 'column'
  const length = column ? rect.height : rect.width
  const { sizes, gap } = divide(length, stack.gap, stack.children.map((c) => c.extent))
  let at = column ? rect.y : rect.x
  stack.children.forEach((child, index) => {
    const size = sizes[index] ?? 0
    place(child.node, column ? { ...rect, y: at, height: size } : { ...rect, x: at, width: size }, [...path, index], into)
    at += size
    if (index === stack.children.length - 1) return
    const strip = column ? { ...rect, y: at, height: gap } : { ...rect, x: at, width: gap }
    into.seams.push({ path, index, axis: stack.axis, rect: strip, stackLength: length })
    at += gap
  })
}

/**
 * Shares `length` (even) among children: fixed ones first, the rest by weight, by largest remainder on a grid of two
 * pixels. A gap that leaves no room for every child is narrowed; fixed sizes that ask for too much are scaled down.
 */
export function divide(length: number, gapWanted: number, extents: readonly Extent[]): { sizes: number[]; gap: number } {
  const gaps = extents.length - 1
  const units = length / 2
  const gapUnits = gaps === 0 ? 0 : Math.max(0, Math.min(Math.round(gapWanted / 2), Math.floor((units - extents.length) / gaps)))
  const room = units - gapUnits * gaps
  const fixedWanted = extents.reduce((sum, e) => sum + (e.kind === 'fixed' ? e.fraction * units : 0), 0)
  const weights = extents.reduce((sum, e) => sum + (e.kind === 'weight' ? e.weight : 0), 0)
  const weighted = extents.filter((e) => e.kind === 'weight').length
  const fixedRoom = weighted === 0 ? room : Math.min(fixedWanted, Math.max(0, room - weighted))
  const shares = extents.map((e) =>
    e.kind === 'fixed' ? (fixedWanted > 0 ? (e.fraction * units * fixedRoom) / fixedWanted : 0) : ((room - fixedRoom) * e.weight) / weights,
  )
  return { sizes: apportion(shares, room).map((n) => n * 2), gap: gapUnits * 2 }
}

/** Rounds `shares` to integers that sum to `total`, each at least 1 where there is enough: largest remainder (Hamilton). */
function apportion(shares: readonly number[], total: number): number[] {
  const whole = shares.map((s) => Math.floor(s + 1e-9))
  const order = shares.map((s, i) => ({ i, rest: s - (whole[i] ?? 0) })).sort((a, b) => b.rest - a.rest || a.i - b.i)
  let left = total - whole.reduce((a, b) => a + b, 0)
  for (let k = 0; left > 0; k++, left--) {
    const { i } = order[k % order.length] as { i: number }
    whole[i] = (whole[i] ?? 0) + 1
  }
  for (let i = 0; i < whole.length; i++) {
    if (whole[i] !== 0) continue
    const largest = whole.indexOf(Math.max(...whole))
    if ((whole[largest] ?? 0) < 2) break
    whole[largest] = (whole[largest] ?? 0) - 1
    whole[i] = 1
  }
  return whole
}
