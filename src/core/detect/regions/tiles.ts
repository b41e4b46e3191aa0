import type { Rect } from '../../geometry/rect'
import type { Background } from './background'
import type { StillLines } from './lines'
import type { Stillness } from './stillness'
import { SummedArea } from '../../geometry/summedArea'

/** A row or column is background when at least this share of it is: coding frays the edges of what is beside it. */
const BACKGROUND_SHARE = 0.985

/** The narrowest gutter, px. */
const MIN_GUTTER = 2

/** The smallest tile, as a share of the frame's width and height. */
const MIN_SIDE = 0.09

/** Two pictures that touch are parted by a line over this share of their height or width. */
const SEAM_SHARE = 0.8

export interface TileLines {
  upright: StillLines
  level: StillLines
  edges: Edges
  /**
   * Whether something in a rectangle keeps moving. A heading's edge runs right through a slide too, but nothing moves
   * on both of its sides.
   */
  isLive: (rect: Rect) => boolean
}

/**
 * Cuts a rectangle along the background that runs right through it, again and again, and where none does, along lines
 * that do: the recursive X–Y cut of page layout analysis (Nagy and Seth, 1984). Gives the pictures that are left, in
 * reading order, without the background around them; one when nothing parts it, none when all is background. Beyond a
 * line a wall can pass for background: `trimAfterLines` says whether to cut it away there too.
 */
export function tilesOf(whole: Rect, background: Background | null, lines: TileLines, trimAfterLines: boolean): Rect[] {
  const least = { width: Math.round(whole.width * MIN_SIDE), height: Math.round(whole.height * MIN_SIDE) }
  const cut = (rect: Rect, background: Background | null): Rect[] => {
    const trimmed = background ? trim(rect, background, lines.edges) : rect
    if (!trimmed || trimmed.width < least.width || trimmed.height < least.height) return []
    const apart =
      background && (alongGutters(trimmed, background, lines, 'y') ?? alongGutters(trimmed, background, lines, 'x'))
    if (apart) return apart.flatMap((part) => cut(part, background))
    const touching = alongLine(trimmed, lines, 'x', least.width) ?? alongLine(trimmed, lines, 'y', least.height)
    return touching ? touching.flatMap((part) => cut(part, trimAfterLines ? background : null)) : [trimmed]
  }
  return cut(whole, background)
}

/**
 * Where background ends and a picture begins, brightness steps along at least this share of the edge, in half of all
 * frames: a clear sky fades instead.
 */
const MIN_EDGE = 0.5
const STEPS_IN = 0.5
/** Coding frays an edge: the step may lie this far from where the background ends, px. */
const EDGE_REACH = 3

/** Where brightness steps in enough frames, whatever it does beside: a picture may be restless up to its edge. */
export class Edges {
  private readonly x: SummedArea
  private readonly y: SummedArea

  constructor(private readonly stillness: Stillness) {
    const enough = stillness.frames * STEPS_IN
    this.x = new SummedArea(stillness, (i) => (stillness.stepsX[i] as number) >= enough)
    this.y = new SummedArea(stillness, (i) => (stillness.stepsY[i] as number) >= enough)
  }

  /** Whether a picture begins or ends at about `at`, along `from` to `to`. */
  isAt(axis: 'x' | 'y', at: number, from: number, to: number): boolean {
    const last = (axis === 'x' ? this.stillness.width : this.stillness.height) - 1
    for (let line = Math.max(0, at - EDGE_REACH); line <= Math.min(last, at + EDGE_REACH); line++) {
      const share =
        axis === 'x'
          ? this.x.share({ x: line, y: from, width: 1, height: to - from })
          : this.y.share({ x: from, y: line, width: to - from, height: 1 })
      if (share >= MIN_EDGE) return true
    }
    return false
  }
}

/** `rect` without the background at its edges; null when it is nothing else. */
export function trim(rect: Rect, background: Background, edges: Edges): Rect | null {
  const { x, y, width, height } = rect
  const plain = (r: Rect) => background.share(r) >= BACKGROUND_SHARE
  let [left, right, top, bottom] = [x, x + width, y, y + height]
  while (top < bottom && plain({ x, y: top, width, height: 1 })) top++
  while (bottom > top && plain({ x, y: bottom - 1, width, height: 1 })) bottom--
  if (top >= bottom) return null
  while (left < right && plain({ x: left, y: top, width: 1, height: bottom - top })) left++
  while (right > left && plain({ x: right - 1, y: top, width: 1, height: bottom - top })) right--
  if (left >= right) return null
  if (!edges.isAt('y', top, left, right)) top = y
  if (!edges.isAt('y', bottom, left, right)) bottom = y + height
  if (!edges.isAt('x', left, top, bottom)) left = x
  if (!edges.isAt('x', right, top, bottom)) right = x + width
  return { x: left, y: top, width: right - left, height: bottom - top }
}

function alongGutters(rect: Rect, background: Background, { edges }: TileLines, axis: 'x' | 'y'): Rect[] | null {
  const isEdge = (at: number) =>
    axis === 'x' ? edges.isAt('x', at, rect.y, rect.y + rect.height) : edges.isAt('y', at, rect.x, rect.x + rect.width)
  const [from, to] = axis === 'x' ? [rect.x, rect.x + rect.width] : [rect.y, rect.y + rect.height]
  const strip = (at: number, length: number): Rect =>
    axis === 'x' ? { ...rect, x: at, width: length } : { ...rect, y: at, height: length }
  const parts: Rect[] = []
  let start = from
  let gutter = 0
  for (let at = from; at < to; at++) {
    if (background.share(strip(at, 1)) >= BACKGROUND_SHARE) gutter++
    else {
      if (gutter >= MIN_GUTTER && (isEdge(at - gutter) || isEdge(at))) {
        parts.push(strip(start, at - gutter - start))
        start = at
      }
      gutter = 0
    }
  }
  if (parts.length === 0) return null
  return [...parts, strip(start, to - start)]
}

function alongLine(rect: Rect, { upright, level, isLive }: TileLines, axis: 'x' | 'y', least: number): Rect[] | null {
  const lines = axis === 'x' ? upright : level
  const [start, length, from, to] =
    axis === 'x'
      ? [rect.x, rect.width, rect.y, rect.y + rect.height]
      : [rect.y, rect.height, rect.x, rect.x + rect.width]
  let best = SEAM_SHARE
  let at = -1
  for (let line = start + least; line <= start + length - least; line++) {
    // Of neighbours that are as good together, the one that is most of it.
    const share = lines.shareNear(line, from, to) + lines.share(line, from, to) / 100
    if (share > best) [best, at] = [share, line]
  }
  if (at < 0) return null
  const parts: Rect[] =
    axis === 'x'
      ? [
          { ...rect, width: at - rect.x },
          { ...rect, x: at, width: rect.x + rect.width - at },
        ]
      : [
          { ...rect, height: at - rect.y },
          { ...rect, y: at, height: rect.y + rect.height - at },
        ]
  return parts.every(isLive) ? parts : null
}
