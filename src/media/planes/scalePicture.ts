import type { Orientation } from '@/core/compose/composition'
import type { Rect } from '@/core/geometry/rect'
import type { FilterKind } from '@/core/picture/filterTable'
import { HALVED_FROM } from '../draw/cropReader'
import type { PlaneHeap } from './planeHeap'
import { givePicture, halfOf, takePicture, type Picture, type Plane } from './planes'
import type { Axis, Resampler } from './resampler'

/**
 * Where samples of the colour differences lie between those of luma, in luma samples from the edge of the first: on
 * its left one's middle, between two rows (H.264, type 0).
 */
const SITED_ACROSS = 0.5
const SITED_DOWN = 1

/** What is scaled, and to where. */
export interface Scaling {
  source: Picture
  /** In samples of the source's luma; fractions allowed, so that nothing is stretched. */
  crop: Rect
  orientation: Orientation
  /** Where all of the crop would go, whole pixels; it may reach beyond the target. */
  dest: Rect
  target: Picture
  /** Where the target's first pixel lies in the same pixels as `dest`; even. */
  origin: { x: number; y: number }
}

/** A crop of a picture at another size, flipped and turned, as much of it as lies in the target. */
export function scalePicture(heap: PlaneHeap, resampler: Resampler, scaling: Scaling): void {
  const { orientation, dest, target, origin } = scaling
  const left = Math.max(dest.x, origin.x)
  const top = Math.max(dest.y, origin.y)
  const seen = {
    left,
    top,
    right: Math.min(dest.x + dest.width, origin.x + target.width),
    bottom: Math.min(dest.y + dest.height, origin.y + target.height),
  }
  if (seen.right <= left || seen.bottom <= top) return
  const lying = orientation.turn % 2 === 1
  const source = lying ? transposed(heap, scaling.source) : scaling.source
  const crop = lying
    ? { x: scaling.crop.y, y: scaling.crop.x, width: scaling.crop.height, height: scaling.crop.width }
    : scaling.crop
  const mirrored = MIRRORED[orientation.turn]
  const across = {
    from: seen.left,
    to: seen.right,
    origin: origin.x,
    at: dest.x,
    length: dest.width,
    cropFrom: crop.x,
    cropLength: crop.width,
    mirrored: lying ? mirrored.across : mirrored.across !== orientation.flip,
  }
  const down = {
    from: seen.top,
    to: seen.bottom,
    origin: origin.y,
    at: dest.y,
    length: dest.height,
    cropFrom: crop.y,
    cropLength: crop.height,
    mirrored: lying ? mirrored.down !== orientation.flip : mirrored.down,
  }
  const sited = lying ? { across: SITED_DOWN, down: SITED_ACROSS } : { across: SITED_ACROSS, down: SITED_DOWN }
  fillPlane(resampler, source.y, target.y, lumaAxis(across, source.y.width), lumaAxis(down, source.y.height))
  for (const [from, to] of [
    [source.u, target.u],
    [source.v, target.v],
  ] as const)
    fillPlane(
      resampler,
      from,
      to,
      halfAxis(across, from.width, SITED_ACROSS, sited.across),
      halfAxis(down, from.height, SITED_DOWN, sited.down),
    )
  if (lying) givePicture(heap, source)
}

/** How a clockwise turn is made from mirroring alone, or after rows and columns have been exchanged. */
const MIRRORED = [
  { across: false, down: false },
  { across: true, down: false },
  { across: true, down: true },
  { across: false, down: true },
] as const

interface Side {
  from: number
  to: number
  origin: number
  at: number
  length: number
  cropFrom: number
  cropLength: number
  mirrored: boolean
}

interface Placed {
  axis: Axis
  /** The first sample of the target that is filled. */
  to: number
}

function lumaAxis(side: Side, samples: number): Placed {
  const first = Math.max(0, Math.floor(side.cropFrom))
  const last = Math.min(samples, Math.ceil(side.cropFrom + side.cropLength - 1e-6))
  const looks = (x: number) => lookedAt(side, x + 0.5) - 0.5
  return { to: side.from - side.origin, axis: axisOf(side, side.to - side.from, looks(side.from), first, last - first) }
}

function halfAxis(side: Side, samples: number, sitedTo: number, sitedFrom: number): Placed {
  const begin = Math.floor(side.from / 2)
  const end = halfOf(side.to)
  const first = Math.max(0, Math.floor(side.cropFrom / 2))
  const last = Math.min(samples, Math.ceil((side.cropFrom + side.cropLength) / 2 - 1e-6))
  const looks = (lookedAt(side, 2 * begin + sitedTo) - sitedFrom) / 2
  return { to: begin - side.origin / 2, axis: axisOf(side, end - begin, looks, first, last - first) }
}

/** The place in the crop's pixels that is seen at a place of the output; both counted from edges. */
function lookedAt({ at, length, cropFrom, cropLength, mirrored }: Side, place: number): number {
  const share = (place - at) / length
  return cropFrom + (mirrored ? 1 - share : share) * cropLength
}

function axisOf(
  { length, cropLength, mirrored }: Side,
  outputs: number,
  from: number,
  first: number,
  samples: number,
): Axis {
  const step = cropLength / length
  return { kind: kindFor(step), outputs, from, step: mirrored ? -step : step, first, samples: Math.max(1, samples) }
}

/** The same choices as the canvas makes: two neighbours, until some would be left out. */
function kindFor(step: number): FilterKind {
  return step >= 1 / HALVED_FROM ? 'area' : 'bilinear'
}

function fillPlane(resampler: Resampler, src: Plane, dst: Plane, across: Placed, down: Placed): void {
  if (across.axis.outputs <= 0 || down.axis.outputs <= 0) return
  resampler.run(src, { ...dst, at: dst.at + down.to * dst.stride + across.to }, across.axis, down.axis)
}

function transposed(heap: PlaneHeap, picture: Picture): Picture {
  const made = takePicture(heap, { width: picture.height, height: picture.width })
  for (const [from, to] of [
    [picture.y, made.y],
    [picture.u, made.u],
    [picture.v, made.v],
  ] as const)
    heap.kernel.transpose(to.at, to.stride, from.at, from.stride, from.width, from.height)
  return made
}
