import { areaOf, type Rect } from '../../geometry/rect'
import { Background } from './background'
import { StillLines } from './lines'
import { Motion } from './motion'
import type { Stillness } from './stillness'
import { Edges, tilesOf, trim, type TileLines } from './tiles'

/** What was seen of a recording: how its pixels behave, small pictures over time, and a few frames as they are. */
export interface RegionEvidence {
  stillness: Stillness
  cells: readonly Uint8Array[]
  /** 8-bit luma, `[height][width]` each. */
  frames: readonly Uint8Array[]
}

/** How a recording's picture is put together, as far as its pixels tell by themselves. */
export interface Structure {
  frame: Rect
  /** The frame without bars. */
  content: Rect
  /** The pictures that stand side by side in it. */
  tiles: readonly Rect[]
  stillness: Stillness
  motion: Motion
  lines: TileLines
  frames: readonly Uint8Array[]
}

/** The structure of what was seen; null for fewer than four frames, which tell nothing. */
export function structureOf(
  { stillness, cells, frames }: RegionEvidence,
  upright = new StillLines(stillness, 'x'),
  level = new StillLines(stillness, 'y'),
): Structure | null {
  if (stillness.frames < 4) return null
  const frame: Rect = { x: 0, y: 0, width: stillness.width, height: stillness.height }
  const motion = new Motion(cells, frame)
  const lines: TileLines = {
    upright,
    level,
    edges: new Edges(stillness),
    isLive: (rect) => motion.within(rect).usual >= LIVE,
  }
  return { frame, ...partsOf(frame, stillness, lines, motion), stillness, motion, lines, frames }
}

/** Bars narrower than this are the ragged edge of a picture, px. */
const MIN_BAR = 4

/** Bars darker than this, in 8-bit luma, may be on one side alone. */
const BLACK_BAR = 28

/** Something keeps moving where at least this share of cells changes from frame to frame. */
export const LIVE = 0.015

interface Parts {
  /** The frame without bars. */
  content: Rect
  /** The pictures that stand side by side in it. */
  tiles: Rect[]
}

/**
 * The frame taken apart along each plain colour that it may be laid out on: the way that leaves most pictures of one
 * size.
 */
function partsOf(frame: Rect, stillness: Stillness, lines: TileLines, motion: Motion): Parts {
  let best: Parts = { content: frame, tiles: [frame] }
  for (const background of [null, ...Background.candidates(stillness)])
    for (const trimAfterLines of background ? [false, true] : [false]) {
      // A part that never moves is a panel of the recorder's own, not a picture; but slides rest for long.
      const tiles = tilesOf(frame, background, lines, trimAfterLines).filter((t) => motion.within(t).most > LIVE)
      const content = background ? withoutBars(frame, background, lines) : frame
      // Lines of text part a slide too, but nothing lives in them.
      const live = tiles.filter(lines.isLive).length
      if (!content || tiles.length === 0 || (tiles.length > 1 && live < tiles.length / 2)) continue
      if (tiles.length > 1 && !tiles.every((t) => lines.isLive(t) || isFramed(t, frame, lines.edges))) continue
      const better = worthOf(tiles) - worthOf(best.tiles)
      const tighter = areaOfAll(tiles) < areaOfAll(best.tiles) && hasBars(frame, content)
      if (better > 0 || (better === 0 && tighter)) best = { content, tiles }
    }
  return best
}

/** Whether each side of a picture can be seen, or is the frame's: what rests on its own plain ground is no picture. */
function isFramed({ x, y, width, height }: Rect, frame: Rect, edges: Edges): boolean {
  const [right, bottom] = [x + width, y + height]
  return (
    (x === 0 || edges.isAt('x', x, y, bottom)) &&
    (right === frame.width || edges.isAt('x', right, y, bottom)) &&
    (y === 0 || edges.isAt('y', y, x, right)) &&
    (bottom === frame.height || edges.isAt('y', bottom, x, right))
  )
}

const areaOfAll = (rects: readonly Rect[]): number => rects.reduce((sum, r) => sum + areaOf(r), 0)

/** Sizes within this share of one another count as one. */
const SAME_SIZE = 0.04

/** Whether two pictures are as large as one another, as programs for calls have them. */
export const isOfOneSize = (a: Rect, b: Rect): boolean =>
  Math.abs(a.width / b.width - 1) < SAME_SIZE && Math.abs(a.height / b.height - 1) < SAME_SIZE

/** How many pictures, less for those that are unlike the others: programs for calls give everybody the same room. */
function worthOf(tiles: readonly Rect[]): number {
  const most = Math.max(...tiles.map((t) => tiles.filter((o) => isOfOneSize(t, o)).length))
  return most + (tiles.length - most) / 4
}

/** What lies inside bars: they are black, or alike on both sides. A meadow at the bottom of the picture is neither. */
function withoutBars(frame: Rect, background: Background, lines: TileLines): Rect | null {
  const inside = trim(frame, background, lines.edges)
  if (!inside || background.luma <= BLACK_BAR) return inside
  const alike = (a: number, b: number) => Math.abs(a - b) <= MIN_BAR
  const sides = alike(inside.x, frame.width - inside.x - inside.width)
  const ends = alike(inside.y, frame.height - inside.y - inside.height)
  return {
    x: sides ? inside.x : 0,
    width: sides ? inside.width : frame.width,
    y: ends ? inside.y : 0,
    height: ends ? inside.height : frame.height,
  }
}

export function hasBars(frame: Rect, content: Rect): boolean {
  const gaps = [
    content.x,
    content.y,
    frame.width - content.x - content.width,
    frame.height - content.y - content.height,
  ]
  return Math.max(...gaps) >= MIN_BAR
}
