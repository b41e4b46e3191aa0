import { assertNever } from '../assert'
import { toEvenPixels } from '../geometry/evenGrid'
import { cropToFill, fitWhole } from '../geometry/fit'
import { centreOf, type Rect, type Size } from '../geometry/rect'
import type { PanelId } from '../model/ids'
import type { Backdrop } from '../model/backdrop'
import type { Region } from '../model/region'
import type { Micros } from '../time/micros'
import type { Feed, Step } from './composition'
import type { PanelPicture } from './panelCrop'

/** A blur of full strength has this share of the canvas's shorter side as its deviation. */
const MAX_BLUR = 0.08

/** Mirrored copies on either side; a picture that small beside its canvas would only flicker. */
const MAX_COPIES = 4

/** What a backdrop shows: a region of a role in the passage's own recording. */
export interface BackdropFootage {
  region: Region
  frame: Size
  feed: Feed
  /** Where a panel shows that region whole, copies continue from it. */
  shownWhole: PanelPicture | null
}

/** The steps that fill the canvas behind all panels at output time `t`; `footageOf` gives what a role shows. */
export function backdropSteps(
  backdrop: Backdrop,
  canvas: Size,
  t: Micros,
  footageOf: (role: string) => BackdropFootage,
): Step[] {
  switch (backdrop.kind) {
    case 'colour':
      return [{ kind: 'colour', colour: backdrop.colour }]
    case 'gradient':
      return [{ kind: 'gradient', from: backdrop.from, to: backdrop.to, degrees: backdrop.degrees }]
    case 'image':
      return [
        { kind: 'image', imageFileId: backdrop.imageFileId, micros: t, dest: null, opacity: 1 },
        ...darkened(backdrop.darken),
      ]
    case 'blur': {
      const { region, frame, feed } = footageOf(backdrop.role)
      const bounds = toEvenPixels(region.bounds, frame)
      const radius = backdrop.strength * MAX_BLUR * Math.min(canvas.width, canvas.height)
      return [
        { kind: 'blur', feed, crop: cropToFill(bounds, canvas.width / canvas.height, centreOf(bounds)), radius },
        ...darkened(backdrop.darken),
      ]
    }
    case 'mirror':
      return [
        { kind: 'colour', colour: '#000000' },
        ...mirrored(footageOf(backdrop.role), canvas),
        ...darkened(backdrop.darken),
      ]
    default:
      return assertNever(backdrop)
  }
}

function darkened(opacity: number): Step[] {
  return opacity > 0 ? [{ kind: 'tint', colour: '#000000', opacity }] : []
}

/** Copies of a picture around its place, each the mirror of its neighbour, until the canvas is full. */
function mirrored({ region, frame, feed, shownWhole }: BackdropFootage, canvas: Size): Step[] {
  const { crop, dest } = shownWhole ?? wholeOn(canvas, toEvenPixels(region.bounds, frame))
  const reach = (from: number, length: number, room: number): [number, number] => [
    -Math.min(MAX_COPIES, Math.ceil(from / length)),
    Math.min(MAX_COPIES, Math.ceil((room - from - length) / length)),
  ]
  const [left, right] = reach(dest.x, dest.width, canvas.width)
  const [up, down] = reach(dest.y, dest.height, canvas.height)
  const steps: Step[] = []
  for (let row = up; row <= down; row++)
    for (let column = left; column <= right; column++) {
      const place = { ...dest, x: dest.x + column * dest.width, y: dest.y + row * dest.height }
      // Upside down is half a turn, with left and right changed over.
      const upsideDown = row % 2 !== 0
      const orientation = { turn: upsideDown ? (2 as const) : (0 as const), flip: upsideDown !== (column % 2 !== 0) }
      steps.push({
        kind: 'picture',
        panelId: 'backdrop' as PanelId,
        feed,
        crop,
        dest: place,
        orientation,
        outline: null,
        opacity: 1,
      })
    }
  return steps
}

function wholeOn(canvas: Size, bounds: Rect): PanelPicture {
  const dest = fitWhole({ x: 0, y: 0, ...canvas }, bounds.width / bounds.height)
  return { crop: bounds, dest }
}
