import { toEven, toEvenPixels } from '../geometry/evenGrid'
import { cropToFill, fitWhole } from '../geometry/fit'
import {
  carriedAlong,
  centreOf,
  intersection,
  pushInside,
  scaleRect,
  type Point,
  type Rect,
  type Size,
} from '../geometry/rect'
import { isRead } from '../layout/needs'
import type { Panel, Turn } from '../model/panel'
import type { Correction } from '../model/passage'
import type { Region } from '../model/region'
import { cropForNeeds, type SeenThing } from './cropForNeeds'

/** What a panel takes from the recording and where it puts it. */
export interface PanelPicture {
  /** Pixels of the display-oriented frame. */
  crop: Rect
  /** Even pixels of the canvas. */
  dest: Rect
}

/** How a region is shown in a panel of its: what was put right in a passage, and what there is to hold or leave out. */
export interface Showing {
  correction?: Pick<Correction, 'dx' | 'dy' | 'zoom'>
  /** Crops are made for these; absent: about the region's focus, or its middle. */
  needs?: { things: readonly SeenThing[]; elsewhere: ReadonlySet<string> }
}

/** A picture that is shown whole for what it shows is never enlarged beyond this. */
const MAX_ENLARGED = 2.9

/**
 * Crop and place of a region in a panel. Never reaches beyond the region's bounds and never stretches: a *fill* crop
 * has the panel's proportion exactly; a *whole* picture keeps its own, to the even pixel, in the middle of the panel.
 */
export function panelPicture(
  panel: Panel,
  rect: Rect,
  region: Region,
  frame: Size,
  { correction, needs }: Showing = {},
): PanelPicture {
  const bounds = toEvenPixels(region.bounds, frame)
  if (panel.fit === 'whole' || (needs && !panel.held && isRead(region.role)))
    return wholePicture(bounds, rect, panel.turn, {
      // Layouts that do not adapt have always shown all of it.
      maxEnlarged: needs ? MAX_ENLARGED : Infinity,
      zoom: needs ? panel.zoom * (correction?.zoom ?? 1) : 1,
      middle: shiftedBy(centreOf(bounds), needs ? correction : undefined, frame),
    })
  // Not on the pixel grid: a focus that follows a path would go in steps of two pixels, and the picture with it.
  const focus = centreOf(region.focus ? scaleRect(region.focus, frame.width, frame.height) : bounds)
  const zoom = panel.zoom * (correction?.zoom ?? 1)
  const proportion = turnedProportion(rect, panel.turn)
  const isRound = (panel.outline ?? region.outline).mask.kind === 'ellipse'
  const crop = needs
    ? cropForNeeds({ bounds, proportion, zoom, natural: focus, regionId: region.id, isRound, ...needs }, needs.things)
    : cropToFill(bounds, proportion, focus, zoom)
  if (!correction) return { crop, dest: rect }
  const moved = { ...crop, x: crop.x + correction.dx * frame.width, y: crop.y + correction.dy * frame.height }
  return { crop: pushInside(moved, bounds), dest: rect }
}

const shiftedBy = ({ x, y }: Point, by: Showing['correction'], frame: Size): Point => ({
  x: x + (by?.dx ?? 0) * frame.width,
  y: y + (by?.dy ?? 0) * frame.height,
})

/** Width over height of what fills `rect` once it has been turned. */
function turnedProportion({ width, height }: Size, turn: Turn): number {
  return turn % 2 === 0 ? width / height : height / width
}

/** How a whole picture is shown: not enlarged beyond `maxEnlarged` by itself; by hand as far as somebody wants. */
interface WholeShowing {
  maxEnlarged: number
  zoom: number
  /** What is in the middle once the panel cuts something off, px of the frame. */
  middle: Point
}

function wholePicture(bounds: Rect, rect: Rect, turn: Turn, { maxEnlarged, zoom, middle }: WholeShowing): PanelPicture {
  const most = maxEnlarged * (turn % 2 === 0 ? bounds.width : bounds.height)
  const largest = fitWhole(rect, turnedProportion(bounds, turn))
  const fitted = scaleRect(largest, Math.min(1, most / largest.width) * zoom)
  const width = Math.min(rect.width, Math.max(2, toEven(fitted.width)))
  const height = Math.min(rect.height, Math.max(2, toEven(fitted.height)))
  const dest = {
    x: rect.x + toEven((rect.width - width) / 2),
    y: rect.y + toEven((rect.height - height) / 2),
    width,
    height,
  }
  const cutOff = zoom === 1 ? 1 : Math.max(1, Math.min(fitted.width / width, fitted.height / height))
  return { crop: cropToFill(bounds, turnedProportion(dest, turn), middle, cutOff), dest }
}

/**
 * Where a part of the frame, px, comes to lie on the canvas in a picture that is flipped, then turned; null when the
 * crop leaves it out.
 */
export function placeOnCanvas(
  part: Rect,
  { crop, dest }: PanelPicture,
  { turn, flip }: Pick<Panel, 'turn' | 'flip'>,
): Rect | null {
  const shown = intersection(part, crop)
  if (!shown) return null
  const { x, y, width, height } = carriedAlong(shown, crop, UNIT)
  const upright = { x: flip ? 1 - x - width : x, y, width, height }
  return carriedAlong(turned(upright, turn), UNIT, dest)
}

const UNIT: Rect = { x: 0, y: 0, width: 1, height: 1 }

/** A part of the unit square once that has been turned clockwise. */
function turned({ x, y, width, height }: Rect, turn: Turn): Rect {
  switch (turn) {
    case 0:
      return { x, y, width, height }
    case 1:
      return { x: 1 - y - height, y: x, width: height, height: width }
    case 2:
      return { x: 1 - x - width, y: 1 - y - height, width, height }
    case 3:
      return { x: y, y: 1 - x - width, width: height, height: width }
  }
}

/**
 * Which way through the frame a movement on the canvas goes, for a panel that is turned or flipped; in the same unit.
 */
export function throughFrame({ turn, flip }: Pick<Panel, 'turn' | 'flip'>, { x, y }: Point): Point {
  const back: Record<Turn, Point> = { 0: { x, y }, 1: { x: y, y: -x }, 2: { x: -x, y: -y }, 3: { x: -y, y: x } }
  const unturned = back[turn]
  return flip ? { x: -unturned.x, y: unturned.y } : unturned
}

/** Output pixels for each source pixel: 1 is as recorded, above it the picture is blown up. */
export function blowUp({ crop, dest }: PanelPicture): number {
  // By the longer sides, which stay the longer ones when a picture is turned.
  return Math.max(dest.width, dest.height) / Math.max(crop.width, crop.height)
}
