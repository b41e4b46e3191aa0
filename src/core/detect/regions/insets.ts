import { areaOf, intersection, type Rect } from '../../geometry/rect'
import type { SummedArea } from '../../geometry/summedArea'
import type { StillLines } from './lines'

/** What sizes of rectangle are looked for. */
export interface InsetSizes {
  /** Sides as shares of the frame's width and height. */
  leastSide: number
  mostSide: number
  /** Width over height. */
  leastProportion: number
  mostProportion: number
}

/** A camera's picture over another. */
export const CAMERA_SIZES: InsetSizes = { leastSide: 0.1, mostSide: 0.55, leastProportion: 0.6, mostProportion: 2.6 }

/** Along each of its sides at least this share is a line. */
const MIN_COVER = 0.55

/** Lines are looked at that are one over some stretch this long, as a share of the frame's height. */
const PROBE = 0.06

/** Most lines of each direction that rectangles are made of: the strongest. */
const MAX_LINES = 90

export interface Inset {
  rect: Rect
  /** Share of the sides inside the frame that is a line, 0..1. */
  cover: number
  /** How many of its sides are lines; the others are the frame's own. */
  sides: number
}

/**
 * Rectangles whose sides are lines that hold still: a picture laid over another one, with or without a border. A side
 * may be the frame's own. Overlapping ones are given too, best covered first, at most `most`; whoever knows what they
 * show chooses.
 */
export function insetsIn(
  frame: Rect,
  upright: StillLines,
  level: StillLines,
  sizes = CAMERA_SIZES,
  most = 60,
): Inset[] {
  const { leastSide, mostSide, leastProportion, mostProportion } = sizes
  const columns = strongLines(upright, frame.x, frame.width, frame.y, frame.height)
  const rows = strongLines(level, frame.y, frame.height, frame.x, frame.width)
  const [edgeLeft, edgeRight, edgeTop, edgeBottom] = [frame.x, frame.x + frame.width, frame.y, frame.y + frame.height]
  const insets: Inset[] = []
  for (const x0 of [edgeLeft, ...columns])
    for (const x1 of [...columns, edgeRight]) {
      const width = x1 - x0
      if (width < frame.width * leastSide || width > frame.width * mostSide) continue
      // The level lines that run all the way between the two.
      const across = rows.map((y) => ({ y, share: level.shareNear(y, x0, x1) })).filter((r) => r.share >= MIN_COVER)
      for (const top of [{ y: edgeTop, share: -1 }, ...across])
        for (const bottom of [...across, { y: edgeBottom, share: -1 }]) {
          const height = bottom.y - top.y
          if (height < frame.height * leastSide || height > frame.height * mostSide) continue
          const proportion = width / height
          if (proportion < leastProportion || proportion > mostProportion) continue
          const sides = [
            top.share,
            bottom.share,
            x0 === edgeLeft ? -1 : upright.shareNear(x0, top.y, bottom.y),
            x1 === edgeRight ? -1 : upright.shareNear(x1, top.y, bottom.y),
          ]
          const real = sides.filter((s) => s >= 0)
          if (real.length < 2 || Math.min(...real) < MIN_COVER) continue
          insets.push({
            rect: { x: x0, y: top.y, width, height },
            cover: real.reduce((a, b) => a + b, 0) / real.length,
            sides: real.length,
          })
        }
    }
  return insets.sort((a, b) => b.cover - a.cover).slice(0, most)
}

/** Lines that are one over some stretch, strongest first of those within two pixels of one another, in rising order. */
function strongLines(
  lines: StillLines,
  from: number,
  length: number,
  alongFrom: number,
  alongLength: number,
): number[] {
  const probe = Math.max(12, Math.round(alongLength * PROBE))
  const strength = (line: number) => {
    let best = 0
    for (let at = alongFrom; at + probe <= alongFrom + alongLength; at += probe >> 1) {
      const share = lines.shareNear(line, at, at + probe)
      if (share > 0.6) best += share
    }
    return best
  }
  const all = Array.from({ length: length - 1 }, (_, i) => ({ line: from + 1 + i, own: 0, strength: 0 }))
  for (const l of all) {
    l.own = lines.share(l.line, alongFrom, alongFrom + alongLength)
    l.strength = l.own > 0.01 ? strength(l.line) : 0
  }
  const peaks = all.filter(
    (l, i) =>
      l.strength > 0 &&
      all.slice(Math.max(0, i - 2), i + 3).every((o) => o.own < l.own || (o.own === l.own && o.line >= l.line)),
  )
  return peaks
    .sort((a, b) => b.strength - a.strength)
    .slice(0, MAX_LINES)
    .map((l) => l.line)
    .sort((a, b) => a - b)
}

/** The share of pixels that are counted in `counted` in a quarter of a rectangle's size around it. */
export function shareAround(counted: SummedArea, rect: Rect, within: Rect): number {
  const around = surroundings(rect, within)
  const count = around.reduce((sum, r) => sum + counted.count(r), 0)
  return count / around.reduce((sum, r) => sum + areaOf(r), 0)
}

/** Strips around a rectangle, a quarter of its size wide, as far as there is room. */
function surroundings({ x, y, width, height }: Rect, within: Rect): Rect[] {
  const [w, h] = [Math.round(width / 4), Math.round(height / 4)]
  const strips = [
    { x: x - w, y, width: w, height },
    { x: x + width, y, width: w, height },
    { x, y: y - h, width, height: h },
    { x, y: y + height, width, height: h },
  ]
  return strips.flatMap((s) => intersection(s, within) ?? [])
}
