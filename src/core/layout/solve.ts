import { compassShare } from '../geometry/compass'
import { assertNever } from '../assert'
import { toEven } from '../geometry/evenGrid'
import { pushInside, type Rect, type Size } from '../geometry/rect'
import type { InsetId } from '../model/ids'
import type { Hanging } from '../model/inset'
import type { Area, Arrangement, Extent, LayoutNode, Stack } from '../model/layout'
import type { Panel } from '../model/panel'

/** A panel with its place on the canvas: integer, even pixels. */
export interface SolvedPanel {
  panel: Panel
  rect: Rect
  /** The inset that it is, or null for a place in the stack. */
  insetId: InsetId | null
}

/** A place for words on the canvas. */
export interface SolvedArea {
  kind: Area['kind']
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
  /** Sizes of the stack's children along its axis, px, and what lies between two of them. */
  sizes: readonly number[]
  gap: number
}

export interface Solved {
  /** In drawing order: the stack's, then the insets. */
  panels: SolvedPanel[]
  areas: SolvedArea[]
  seams: Seam[]
}

/**
 * Places every leaf of an arrangement on a canvas of even size ≥ 64 × 64. All rectangles are even integers, meet
 * exactly and sum to the canvas exactly. Throws RangeError for a canvas that is odd or too small.
 */
export function solve(arrangement: Arrangement, canvas: Size): Solved {
  for (const side of ['width', 'height'] as const)
    if (canvas[side] < 64 || canvas[side] % 2 !== 0)
      throw new RangeError(`canvas.${side}: ${canvas[side]} is not an even number ≥ 64`)
  const solved: Solved = { panels: [], areas: [], seams: [] }
  place(arrangement.tree, { x: 0, y: 0, width: canvas.width, height: canvas.height }, [], solved)
  for (const inset of arrangement.insets)
    solved.panels.push({ panel: inset.panel, rect: insetRect(inset, canvas), insetId: inset.id })
  return solved
}

/** An inset's place: even pixels, inside the canvas. One that would be too high is narrowed. */
export function insetRect({ anchor, dx, dy, width, proportion }: Hanging, canvas: Size): Rect {
  const wanted = Math.min(width * canvas.width, canvas.width, canvas.height * proportion)
  const size = {
    width: Math.max(2, Math.min(canvas.width, toEven(wanted))),
    height: Math.max(2, Math.min(canvas.height, toEven(wanted / proportion))),
  }
  const along = (at: number, room: number, length: number) => at * (room - length)
  const share = compassShare(anchor)
  const x = along(share.x, canvas.width, size.width) + dx * canvas.width
  const y = along(share.y, canvas.height, size.height) + dy * canvas.height
  return pushInside({ x: toEven(x), y: toEven(y), ...size }, { x: 0, y: 0, width: canvas.width, height: canvas.height })
}

function place(node: LayoutNode, rect: Rect, path: readonly number[], into: Solved): void {
  switch (node.kind) {
    case 'panel':
      into.panels.push({ panel: node, rect, insetId: null })
      return
    case 'titleArea':
    case 'captionArea':
      into.areas.push({ kind: node.kind, rect })
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
  const across = column ? rect.width : rect.height
  const { sizes, gap } = divide(
    length,
    stack.gap,
    stack.children.map((c) => resolved(c.extent, stack.axis, length, across)),
  )
  let at = column ? rect.y : rect.x
  stack.children.forEach((child, index) => {
    const size = sizes[index] ?? 0
    place(
      child.node,
      column ? { ...rect, y: at, height: size } : { ...rect, x: at, width: size },
      [...path, index],
      into,
    )
    at += size
    if (index === stack.children.length - 1) return
    const strip = column ? { ...rect, y: at, height: gap } : { ...rect, x: at, width: gap }
    into.seams.push({ path, index, axis: stack.axis, rect: strip, stackLength: length, sizes, gap })
    at += gap
  })
}

/** What a proportion comes to in a stack `length` px long and `across` px wide. */
export function resolved(extent: Extent, axis: Stack['axis'], length: number, across: number): SettledExtent {
  if (extent.kind !== 'shaped') return extent
  const wanted = axis === 'column' ? across / extent.proportion : across * extent.proportion
  return { kind: 'fixed', fraction: length > 0 ? Math.min(extent.most, wanted / length) : extent.most }
}

type SettledExtent = Exclude<Extent, { kind: 'shaped' }>

/**
 * Shares `length` (even) among children: fixed ones first, the rest by weight, by largest remainder on a grid of two
 * pixels. A gap that leaves no room for every child is narrowed; fixed sizes that ask for too much are scaled down.
 */
export function divide(
  length: number,
  gapWanted: number,
  extents: readonly SettledExtent[],
): { sizes: number[]; gap: number } {
  const gaps = extents.length - 1
  const units = length / 2
  const gapUnits =
    gaps === 0 ? 0 : Math.max(0, Math.min(Math.round(gapWanted / 2), Math.floor((units - extents.length) / gaps)))
  const room = units - gapUnits * gaps
  const fixedWanted = extents.reduce((sum, e) => sum + (e.kind === 'fixed' ? e.fraction * units : 0), 0)
  const weights = extents.reduce((sum, e) => sum + (e.kind === 'weight' ? e.weight : 0), 0)
  const weighted = extents.filter((e) => e.kind === 'weight').length
  const fixedRoom = weighted === 0 ? room : Math.min(fixedWanted, Math.max(0, room - weighted))
  const shares = extents.map((e) => {
    if (e.kind === 'weight') return ((room - fixedRoom) * e.weight) / weights
    return fixedWanted > 0 ? (e.fraction * units * fixedRoom) / fixedWanted : 0
  })
  return { sizes: apportion(shares, room).map((n) => n * 2), gap: gapUnits * 2 }
}

/**
 * Rounds `shares` to integers that sum to `total`, each at least 1 where there is enough: largest remainder
 * (Hamilton).
 */
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
