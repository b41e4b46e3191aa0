import { clamp } from '../clamp'
import type { Size } from '../geometry/rect'
import { INSET_OFFSET, INSET_WIDTH, type Inset } from '../model/inset'
import type { Arrangement, Layout, LayoutNode, Stack, StackChild } from '../model/layout'
import type { Shape } from '../model/shape'
import { divide, resolved } from './solve'
import { weightOf } from './weightOf'

/** The canvas that a layout's own arrangement is made for; other shapes derive theirs from it. */
export const BASE: Size = { width: 1080, height: 1920 }

/** The arrangement a layout uses for a shape: its own for that shape, else one derived by rule. */
export function arrangementFor(layout: Pick<Layout, 'arrangement' | 'perShape'>, shape: Shape): Arrangement {
  return layout.perShape[shape.id] ?? derive(layout.arrangement, shape)
}

/**
 * An arrangement for another shape than the one it was made for. In a wide one rows become columns, four equal rows
 * two by two; areas for words stay above and below. Insets keep their corner, their distance from it and their share
 * of the canvas. What was turned to fill a tall frame is upright again in one that is not tall.
 */
export function derive({ tree, insets, backdrop }: Arrangement, shape: Size): Arrangement {
  const wide = shape.width > shape.height
  const derived = wide ? sideBySide(tree, BASE) : tree
  return {
    tree: shape.height > shape.width ? derived : upright(derived),
    insets: insets.map((inset) => insetFor(turnsInto(tree, shape) ? alongside(inset) : inset, shape)),
    backdrop,
  }
}

/** {@link derive} the other way: stacked where that puts side by side, side by side where it stacks. */
export function deriveOtherWay({ tree, insets, backdrop }: Arrangement, shape: Size): Arrangement {
  const other = shape.width > shape.height ? tree : sideBySide(tree, BASE)
  return { tree: upright(other), insets: insets.map((inset) => insetFor(inset, shape)), backdrop }
}

const isArea = ({ node }: StackChild) => node.kind === 'titleArea' || node.kind === 'captionArea'

/**
 * A stack's children with the share that each has of the base canvas as its weight: what stands side by side keeps
 * its part of the whole.
 */
function weighed(
  { axis, gap, children }: Stack,
  { width, height }: Size,
): (StackChild & { extent: { kind: 'weight'; weight: number } })[] {
  const [length, across] = axis === 'column' ? [height, width] : [width, height]
  const { sizes } = divide(
    length,
    gap,
    children.map((c) => resolved(c.extent, axis, length, across)),
  )
  return children.map((child, i) => ({
    extent: { kind: 'weight', weight: weightOf(sizes[i] ?? 0, length) },
    node:
      child.node.kind === 'stack' && child.node.axis === axis
        ? child.node
        : sideBySide(
            child.node,
            axis === 'column' ? { width, height: sizes[i] ?? 2 } : { width: sizes[i] ?? 2, height },
          ),
  }))
}

/**
 * Rows become columns and columns rows; rows within rows, which belong together, stay as they are. `room`: what the
 * node takes of the base canvas.
 */
function sideBySide(node: LayoutNode, room: Size): LayoutNode {
  if (node.kind !== 'stack') return node
  const children = weighed(node, room)
  if (node.axis === 'row') return { ...node, axis: 'column', children }
  // Words keep their strip above and below, and the space about them; only what lies between comes to stand side by
  // side.
  const isPicture = ({ node: { kind } }: StackChild) => kind === 'panel' || kind === 'stack'
  const [firstPicture, lastPicture] = [children.findIndex(isPicture), children.findLastIndex(isPicture)]
  if (firstPicture === -1) return node
  const first = children.slice(0, firstPicture).some(isArea) ? firstPicture : 0
  const last = children.slice(lastPicture + 1).some(isArea) ? lastPicture : children.length - 1
  const between = children.slice(first, last + 1)
  if (between.length === children.length) return twoByTwo(node, children) ?? { ...node, axis: 'row', children }
  const [only] = between
  const middle: LayoutNode = between.length === 1 && only ? only.node : { ...node, axis: 'row', children: between }
  // One picture alone keeps what it asks for: there is nothing that it would stand beside.
  const extent =
    between.length === 1 && node.children[first]
      ? node.children[first].extent
      : { kind: 'weight' as const, weight: between.reduce((sum, c) => sum + c.extent.weight, 0) }
  const rest = { extent, node: middle }
  return { ...node, children: [...children.slice(0, first), rest, ...children.slice(last + 1)] }
}

/** Four equal rows would be four slivers side by side. */
function twoByTwo(stack: Stack, children: StackChild[]): Stack | null {
  const [a, b, c, d] = children
  const alike = stack.children.every(
    ({ extent }) => JSON.stringify(extent) === JSON.stringify(stack.children[0]?.extent),
  )
  if (children.length !== 4 || !a || !b || !c || !d || !alike) return null
  const row = (pair: StackChild[]): StackChild => ({
    extent: a.extent,
    node: { ...stack, axis: 'row', children: pair },
  })
  return { ...stack, axis: 'column', children: [row([a, b]), row([c, d])] }
}

function upright(node: LayoutNode): LayoutNode {
  if (node.kind === 'panel') return node.turn === 0 ? node : { ...node, turn: 0 }
  if (node.kind !== 'stack') return node
  const children = node.children.map((child) => ({ ...child, node: upright(child.node) }))
  return children.every((child, i) => child.node === node.children[i]?.node) ? node : { ...node, children }
}

/** Where the middle of an upper edge comes to lie when rows become columns. */
const ALONGSIDE: Partial<Record<Inset['anchor'], Inset['anchor']>> = { n: 'w', s: 'e', w: 'n', e: 's' }

function alongside(inset: Inset): Inset {
  const anchor = ALONGSIDE[inset.anchor]
  // Straight down from the middle becomes straight to the right of it.
  return anchor || inset.anchor === 'c' ? { ...inset, anchor: anchor ?? 'c', dx: inset.dy, dy: inset.dx } : inset
}

/**
 * What a distance of one canvas's sides is on another: corners keep theirs by the shorter side, middles by their own.
 */
function insetFor(inset: Inset, shape: Size): Inset {
  const { width, proportion } = resized(inset, BASE, shape)
  const corner = inset.anchor.length === 2
  return {
    ...inset,
    width,
    proportion,
    dx: corner ? offset(inset.dx, BASE, shape, 'width') : inset.dx,
    dy: corner ? offset(inset.dy, BASE, shape, 'height') : inset.dy,
  }
}

const shorter = ({ width, height }: Size) => Math.min(width, height)

function offset(share: number, from: Size, to: Size, side: 'width' | 'height'): number {
  return clamp(((share * from[side]) / shorter(from)) * (shorter(to) / to[side]), INSET_OFFSET)
}

/** An inset's width on another canvas, of which it is to take the same share of the area. */
function resized({ width, proportion }: Inset, from: Size, to: Size): { width: number; proportion: number } {
  const area = (width * from.width) ** 2 / proportion / (from.width * from.height)
  const pixels = Math.sqrt(area * to.width * to.height * proportion)
  return { width: clamp(pixels / to.width, INSET_WIDTH), proportion }
}

/**
 * The base arrangement's inset that derives to `moved` in `shape`: what a change made there means for all. `turned`:
 * see {@link turnsInto}.
 */
export function insetInBase(moved: Inset, shape: Size, turned: boolean): Inset {
  const { width, proportion } = resized(moved, shape, BASE)
  const corner = moved.anchor.length === 2
  const back = {
    ...moved,
    width,
    proportion,
    dx: corner ? offset(moved.dx, shape, BASE, 'width') : moved.dx,
    dy: corner ? offset(moved.dy, shape, BASE, 'height') : moved.dy,
  }
  return turned ? alongside(back) : back
}

/** Whether what a layout arranges comes to stand side by side in a shape. */
export function turnsInto(tree: LayoutNode, shape: Size): boolean {
  return (
    shape.width > shape.height &&
    tree.kind === 'stack' &&
    tree.axis === 'column' &&
    tree.children.length > 1 &&
    !tree.children.some(isArea)
  )
}
