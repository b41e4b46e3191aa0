import { areaOf, intersection, type Rect } from '../../geometry/rect'
import { insetsIn, shareAround, type InsetSizes } from './insets'
import type { StillLines } from './lines'
import type { Stillness } from './stillness'
import { SummedArea } from '../../geometry/summedArea'

/** Displays are smaller than cameras, and may be long. */
const SIZES: InsetSizes = { leastSide: 0.035, mostSide: 0.4, leastProportion: 0.5, mostProportion: 9 }

/**
 * A pixel that has been this much brighter and darker moves; the second is for displays that let the picture shine
 * through.
 */
const RANGES = [28, 60]

/** Around a display this share of the pixels moves at least, and this much less of those in it. */
const MIN_AROUND = 0.35
const MIN_APART = 0.3
const MIN_COVER = 0.75

const MOST = 6
const MAX_CONFIDENCE = 0.75

export interface Display {
  rect: Rect
  /** 0..1 */
  confidence: number
}

/**
 * Blocks that a game lays over its picture, such as readings and maps: rectangles with lines for sides that rest
 * while what is around them moves. None overlaps another or one of `cameras`; surest first.
 */
export function displaysIn(
  within: Rect,
  cameras: readonly Rect[],
  stillness: Stillness,
  upright: StillLines,
  level: StillLines,
): Display[] {
  const moving = RANGES.map((range) => new SummedArea(stillness, (i) => (stillness.range[i] as number) > range))
  const displays: Display[] = []
  const candidates = insetsIn(within, upright, level, SIZES, 400)
    .filter(({ cover }) => cover >= MIN_COVER)
    .map(({ rect, cover }) => ({ rect, score: cover * Math.max(...moving.map((m) => apart(m, rect, within))) }))
    .filter((c) => c.score > 0)
    // Of a display and a part of it, the whole: a little less sure is still surer than a fragment.
    .sort((a, b) => b.score * Math.sqrt(areaOf(b.rect)) - a.score * Math.sqrt(areaOf(a.rect)))
  for (const { rect, score } of candidates) {
    if (displays.length >= MOST) break
    if ([...displays.map((d) => d.rect), ...cameras].some((other) => intersection(other, rect))) continue
    displays.push({ rect, confidence: Math.min(MAX_CONFIDENCE, score) })
  }
  return displays.sort((a, b) => b.confidence - a.confidence)
}

/** How much less moves in a rectangle than around it, 0..1; 0 where that is too little to tell. */
function apart(moving: SummedArea, rect: Rect, within: Rect): number {
  const outside = shareAround(moving, rect, within)
  const less = outside - moving.share(rect)
  return outside >= MIN_AROUND && less >= MIN_APART ? less : 0
}
