import { areaOf, intersection, type Rect, type Size } from '../geometry/rect'
import { placeOnCanvas } from './panelCrop'
import type { PlacedPanel } from './placeArrangement'

/** How much of a part of a recording's picture a panel shows. */
export interface Showing {
  /** Where it comes to lie, px of the canvas. */
  rect: Rect
  /** The share that its crop holds, 0..1. */
  held: number
  /** The share of what it holds that panels drawn later lie over, 0..1. */
  hidden: number
}

/** More of a head than this, seen somewhere, is that head. */
export const IS_THERE = 0.5

/**
 * Output pixels for one of the recording from which softness is seen, from which it is plain, and beyond which another
 * arrangement is looked for.
 */
export const SOFT = { seen: 1.5, plain: 2.5, most: 3 } as const

/** Letters of slides and lists can still be read at this share of the size at which they were on the screen. */
export const MIN_LEGIBLE = 0.45

/** What `panel`, one of those `placed`, shows of `part` (px of its recording's frame); null for nothing of it. */
export function showingOf(part: Rect, panel: PlacedPanel, placed: readonly PlacedPanel[]): Showing | null {
  const { picture } = panel
  if (!picture) return null
  const rect = placeOnCanvas(part, picture, panel.panel)
  const both = intersection(part, picture.crop)
  return rect && both ? { rect, held: areaOf(both) / areaOf(part), hidden: hiddenShare(rect, panel, placed) } : null
}

/** How large letters are, of how large they were on a screen as high as the recording. */
export const legibility = (enlarged: number, recording: Size, canvas: Size): number =>
  (enlarged * Math.min(recording.width, recording.height)) / Math.min(canvas.width, canvas.height)

/** The share of a part of the canvas that panels drawn later lie over. */
function hiddenShare(rect: Rect, panel: PlacedPanel, placed: readonly PlacedPanel[]): number {
  let hidden = 0
  for (const { picture } of placed.slice(placed.indexOf(panel) + 1)) {
    const both = picture && intersection(rect, picture.dest)
    if (both) hidden += areaOf(both)
  }
  return Math.min(1, hidden / areaOf(rect))
}
