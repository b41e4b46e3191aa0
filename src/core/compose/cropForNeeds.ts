import { largestWithin } from '../geometry/fit'
import { areaOf, centreOf, intersection, pushInside, type Point, type Rect } from '../geometry/rect'
import type { NeedKind } from '../layout/needs'

/** Something in a recording's picture that a crop should hold, or leave out altogether. */
export interface SeenThing {
  kind: NeedKind
  /** Px of the recording's frame. */
  rect: Rect
  /** The region that it is part of. */
  regionId: string
  /** Whether that region is somebody's own picture. */
  ofPerson: boolean
  /** Nobody has said or seen where it is. */
  guessed?: boolean
}

/** What a crop is made for. */
export interface CropWish {
  /** Nothing beyond is shown, px of the frame. */
  bounds: Rect
  /** Width over height of the crop. */
  proportion: number
  zoom: number
  /** Where the crop would be if nothing spoke against it. */
  natural: Point
  /** The region that is to be shown, and those that other panels show. */
  regionId: string
  elsewhere: ReadonlySet<string>
  /** A round window shows less in its corners: what matters is in its middle. */
  isRound: boolean
}

/** Less than this of a thing is a sliver that nobody takes for it, more than that is all of it. */
export const [MIN_PART, WHOLE_PART] = [0.08, 0.997] as const

/** Room above a head, of its height. */
const HEADROOM = 0.14
/** How far down a head eyes are, and where in a picture they belong. */
const EYES = { inHead: 0.42, inPicture: 0.36 }
/** A crop may be so much tighter where a wider one shows part of what it should not. */
const TIGHTER = [1, 0.88, 0.76, 0.64] as const

const COSTS = {
  /** A head that is cut, or lost; what of it is lost comes on top. */
  cut: 4,
  lost: 6,
  /** A head that no other panel shows either. */
  left: 1.5,
  headroom: 1.2,
  eyes: 0.8,
  middle: 0.5,
  /** A head or a list that is shown by another panel as well. */
  twice: 3,
  /** Part of what is read. */
  readCut: 3,
  action: 3,
  /** A facecam's border or background beside the facecam. */
  rest: 1.5,
  far: 0.35,
  tight: 1.2,
}

/**
 * The crop of a proportion inside `bounds` that holds what it should, leaves out what another panel shows, and is
 * otherwise as near to its natural place and as wide as may be. Tighter than asked for only where that leaves
 * something out; never beyond `bounds`.
 */
export function cropForNeeds(wish: CropWish, things: readonly SeenThing[]): Rect {
  const { bounds, proportion, zoom, natural, regionId, elsewhere, isRound } = wish
  const crops = found.get(things) ?? new Map<string, Rect>()
  found.set(things, crops)
  const key = [
    ...[bounds.x, bounds.y, bounds.width, bounds.height, proportion, zoom, natural.x, natural.y, isRound, regionId],
    ...elsewhere,
  ].join()
  const known = crops.get(key)
  if (known) return known
  if (crops.size >= MAX_FOUND) crops.clear()
  const crop = findCrop(wish, things)
  crops.set(key, crop)
  return crop
}

/** Crops that were found for what is seen: while an arrangement is looked for the same ones are asked for again. */
const found = new WeakMap<readonly SeenThing[], Map<string, Rect>>()
const MAX_FOUND = 2000

function findCrop(wish: CropWish, things: readonly SeenThing[]): Rect {
  const { bounds, proportion, zoom, natural } = wish
  const near = things.filter((t) => intersection(t.rect, bounds))
  const largest = largestWithin(bounds, proportion)
  const at = (centre: Point, size: { width: number; height: number }) =>
    pushInside({ x: centre.x - size.width / 2, y: centre.y - size.height / 2, ...size }, bounds)
  const widest = { width: largest.width / zoom, height: largest.height / zoom }
  if (near.length === 0) return at(natural, widest)
  const others = near.some((t) => t.regionId !== wish.regionId)
  let best = at(natural, widest)
  let least = Infinity
  for (const tighter of others ? TIGHTER : [1]) {
    const size = { width: widest.width * tighter, height: widest.height * tighter }
    const [xs, ys] = [starts('x', wish, near, size), starts('y', wish, near, size)]
    for (const y of ys)
      for (const x of xs) {
        const crop = pushInside({ x, y, ...size }, bounds)
        const cost = costOf(crop, wish, near) + (1 - tighter) * COSTS.tight
        if (cost >= least - 1e-9) continue
        least = cost
        best = crop
      }
    // Nothing that a tighter crop would leave out is in it.
    if (!shows(best, wish, near)) break
  }
  return best
}

/** Whether a crop shows anything that is not its own region's: what others show, or a part of what is read. */
const shows = (crop: Rect, { regionId }: CropWish, things: readonly SeenThing[]): boolean =>
  things.some((t) => t.regionId !== regionId && t.kind !== 'action' && intersection(t.rect, crop))

/** Where a crop could begin along an axis: its natural place, and right beside or around each thing. */
function starts(
  axis: 'x' | 'y',
  wish: CropWish,
  things: readonly SeenThing[],
  size: Record<'width' | 'height', number>,
) {
  const side = axis === 'x' ? 'width' : 'height'
  const { bounds, natural } = wish
  const free = bounds[side] - size[side]
  if (free < 0.5) return [bounds[axis] + free / 2]
  const found = [natural[axis] - size[side] / 2]
  for (const { rect, kind } of things) {
    if (kind === 'rest' && rect[side] >= bounds[side]) continue
    const [from, to] = [rect[axis], rect[axis] + rect[side]]
    const middle = (from + to) / 2
    found.push(from - size[side], to, from, to - size[side], middle - size[side] / 2)
    if (kind === 'head' && axis === 'y')
      found.push(from + rect.height * EYES.inHead - size.height * EYES.inPicture, from - rect.height * HEADROOM)
  }
  const inside = found.map((v) => Math.min(Math.max(v, bounds[axis]), bounds[axis] + free))
  return [...new Set(inside.map((v) => Math.round(v * 4) / 4))].map((v) => Math.min(v, bounds[axis] + free))
}

function costOf(crop: Rect, wish: CropWish, things: readonly SeenThing[]): number {
  let cost = 0
  let heads = 0
  // Of two panels that show the same one is enough to show who is in it.
  const isRepeated = wish.elsewhere.has(wish.regionId)
  for (const thing of things) {
    const { kind, rect, regionId } = thing
    const both = intersection(rect, crop)
    const part = both ? areaOf(both) / areaOf(rect) : 0
    const isOwn = regionId === wish.regionId
    switch (kind) {
      case 'head':
        if (!isOwn && wish.elsewhere.has(regionId)) cost += part > MIN_PART ? COSTS.twice + part : part
        else if (part < WHOLE_PART && (isOwn || part > MIN_PART))
          cost += isOwn ? COSTS.lost * (1 - part) + COSTS.cut : COSTS.cut
        else if (!isOwn && part <= MIN_PART) cost += isRepeated ? 0 : COSTS.left
        else if (isRepeated) cost += COSTS.twice
        else if (heads++ === 0)
          cost += inPicture(rect, crop, wish) * (isOwn ? 1 : Math.min(1, 8 * (areaOf(rect) / areaOf(wish.bounds))))
        break
      case 'read':
        if (part > MIN_PART && part < WHOLE_PART) cost += COSTS.readCut
        else if (!isOwn && part >= WHOLE_PART && wish.elsewhere.has(regionId)) cost += 0.2
        break
      case 'action':
        if (part < WHOLE_PART && (isOwn || part > MIN_PART)) cost += COSTS.action * (1 + (1 - part))
        break
      case 'rest':
        if (!isOwn && thing.ofPerson && wish.elsewhere.has(regionId)) cost += COSTS.rest * part
        break
    }
  }
  const centre = centreOf(crop)
  const from = {
    x: (centre.x - wish.natural.x) / wish.bounds.width,
    y: (centre.y - wish.natural.y) / wish.bounds.height,
  }
  return cost + COSTS.far * Math.hypot(from.x, from.y)
}

/** How well a head sits in a picture: with room above, eyes near the upper third, not at a side. */
function inPicture(head: Rect, crop: Rect, { isRound }: CropWish): number {
  const centre = centreOf(head)
  const across = Math.abs(centre.x - crop.x - crop.width / 2) / crop.width
  if (isRound) return 6 * (across + Math.abs(centre.y - crop.y - crop.height / 2) / crop.height)
  const above = Math.max(0, 1 - (head.y - crop.y) / (head.height * HEADROOM))
  const eyes = Math.abs((head.y + head.height * EYES.inHead - crop.y) / crop.height - EYES.inPicture)
  return COSTS.headroom * above + COSTS.eyes * eyes + COSTS.middle * across
}
