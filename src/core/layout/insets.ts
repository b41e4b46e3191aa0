import { clamp } from '../clamp'
import { compassShare } from '../geometry/compass'
import { centreOf, type Rect, type Size } from '../geometry/rect'
import { INSET_OFFSET, INSET_PROPORTION, INSET_WIDTH, type Anchor, type Hanging, type Inset } from '../model/inset'
import type { Zone } from '../model/outlet'
import type { Solved } from './solve'

/**
 * An inset that lies at `rect`, px of a canvas: on the nearest of the nine points, so that it stays near it on other
 * canvases.
 */
export function insetAt<T extends Hanging>(inset: T, rect: Rect, canvas: Size): T {
  const third = (at: number, of: number): 0 | 0.5 | 1 => {
    if (at < of / 3) return 0
    return at > (2 * of) / 3 ? 1 : 0.5
  }
  const centre = centreOf(rect)
  const [x, y] = [third(centre.x, canvas.width), third(centre.y, canvas.height)]
  const dx = (rect.x - x * (canvas.width - rect.width)) / canvas.width
  const dy = (rect.y - y * (canvas.height - rect.height)) / canvas.height
  return {
    ...inset,
    anchor: anchorAt(x, y),
    dx: clamp(dx, INSET_OFFSET),
    dy: clamp(dy, INSET_OFFSET),
    width: clamp(rect.width / canvas.width, INSET_WIDTH),
    proportion: clamp(rect.width / Math.max(1, rect.height), INSET_PROPORTION),
  }
}

/** An inset on another of the nine points, as far from it as it is from its own. */
export function hungOn<T extends Hanging>(inset: T, anchor: Anchor): T {
  const { x, y } = compassShare(anchor)
  return { ...inset, anchor, dx: Math.abs(inset.dx) * (1 - 2 * x), dy: Math.abs(inset.dy) * (1 - 2 * y) }
}

function anchorAt(x: 0 | 0.5 | 1, y: 0 | 0.5 | 1): Anchor {
  const down = { 0: 'n', 0.5: '', 1: 's' }[y]
  const along = `${down}${{ 0: 'w', 0.5: '', 1: 'e' }[x]}`
  return along === '' ? 'c' : (along as Anchor)
}

/** Lines that an inset comes to rest on, px of the canvas: across it at some y, down it at some x. */
export interface Guides {
  x: readonly number[]
  y: readonly number[]
}

/** Edges, middle, thirds and seams of a canvas, the other panels' edges, and those of an outlet's zones. */
export function guidesOf(
  { seams, panels }: Solved,
  canvas: Size,
  without: Inset['id'] | null,
  zones: readonly Zone[],
): Guides {
  const rects = [
    ...seams.map((s) => s.rect),
    ...panels.filter((p) => p.insetId === null || p.insetId !== without).map((p) => p.rect),
    ...zones.map(({ rect }) => ({
      x: rect.x * canvas.width,
      y: rect.y * canvas.height,
      width: rect.width * canvas.width,
      height: rect.height * canvas.height,
    })),
  ]
  const along = (length: number, edges: number[]) => [
    ...new Set([0, length / 3, length / 2, (2 * length) / 3, length, ...edges]),
  ]
  return {
    x: along(
      canvas.width,
      rects.flatMap((r) => [r.x, r.x + r.width]),
    ),
    y: along(
      canvas.height,
      rects.flatMap((r) => [r.y, r.y + r.height]),
    ),
  }
}

/**
 * A rectangle moved onto the nearest guide within `reach` px, by an edge or its middle; and the guides that it lies
 * on.
 */
export function snapToGuides(rect: Rect, guides: Guides, reach: number): { rect: Rect; on: Guides } {
  const x = nearest([rect.x, rect.x + rect.width / 2, rect.x + rect.width], guides.x, reach)
  const y = nearest([rect.y, rect.y + rect.height / 2, rect.y + rect.height], guides.y, reach)
  return {
    rect: { ...rect, x: rect.x + (x?.by ?? 0), y: rect.y + (y?.by ?? 0) },
    on: { x: x ? [x.guide] : [], y: y ? [y.guide] : [] },
  }
}

function nearest(
  edges: readonly number[],
  guides: readonly number[],
  reach: number,
): { by: number; guide: number } | null {
  const all = edges
    .flatMap((edge) => guides.map((guide) => ({ by: guide - edge, guide })))
    .filter(({ by }) => Math.abs(by) <= reach)
  return all.sort((a, b) => Math.abs(a.by) - Math.abs(b.by))[0] ?? null
}
