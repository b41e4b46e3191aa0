import { intersection, shareOfBoth, type Rect } from '../../geometry/rect'
import { STILL_RANGE } from './background'
import { CAMERA_SIZES, insetsIn, shareAround, type Inset } from './insets'
import type { Motion } from './motion'
import { shows, type SeenPerson } from './people'
import type { RegionProposal } from './proposal'
import { LIVE, type Structure } from './structure'
import { SummedArea } from '../../geometry/summedArea'
import { tighten } from './tighten'

/** So many people are looked for over one picture. */
export const MAX_PEOPLE = 4

/** So many pictures that could be a camera's are searched for faces. */
const MAX_SEARCHED = 10
/** Places that have so much in common, of both, are searched as one. */
const SEARCHED_AS_ONE = 0.4

/** A lying picture's beginning, middle and end, as high as it is: a face that fills much of one is found best. */
function squaresOf(content: Rect): Rect[] {
  const free = content.width - content.height
  if (free < content.height / 3) return []
  return [0, 0.5, 1].map((at) => ({ ...content, x: content.x + Math.round(at * free), width: content.height }))
}

/** Where faces are worth looking for, px of the frame: all of it, each picture in it, and what may be a camera's. */
export function placesForFaces({ content, tiles, lines, motion }: Structure): Rect[] {
  if (tiles.length > 2) return [content, ...tiles]
  const places: Rect[] = [content, ...(tiles.length > 1 ? tiles : squaresOf(content))]
  for (const { rect } of insetsIn(content, lines.upright, lines.level, CAMERA_SIZES, MANY)) {
    if (places.length >= MAX_SEARCHED) break
    if (motion.within(rect).usual >= LIVE && !places.some((p) => shareOfBoth(p, rect) >= SEARCHED_AS_ONE))
      places.push(rect)
  }
  return places
}

/**
 * Pictures laid over another, the surest first. Where people were looked for: one for each who has a picture of their
 * own; and where there is nobody, the best one, which is no camera then.
 */
export function camerasIn(
  within: Rect,
  { stillness, lines, motion }: Structure,
  people: readonly SeenPerson[] | null,
): RegionProposal[] {
  const moving = new SummedArea(stillness, (i) => (stillness.range[i] as number) > 2 * STILL_RANGE)
  const candidates = insetsIn(within, lines.upright, lines.level, CAMERA_SIZES, people?.length ? MANY : FEW)
  const best = (person: SeenPerson | null, taken: readonly RegionProposal[]): RegionProposal | null => {
    const [first] = candidates
      .filter(({ rect }) => (person === null || shows(rect, person)) && !taken.some((t) => intersection(t.rect, rect)))
      .map((inset) => ({ inset, score: cameraScore(inset, within, moving, motion, person) }))
      .filter((s) => s.score > 0)
      .sort((a, b) => b.score - a.score)
    if (!first) return null
    return {
      found: 'inset',
      role: people === null || person ? 'face' : 'hud',
      rect: tighten(first.inset.rect, stillness, lines.upright, lines.level),
      confidence: Math.min(people === null || person ? 0.97 : 0.5, first.score),
    }
  }
  if (!people?.length) {
    const inset = best(null, [])
    return inset ? [inset] : []
  }
  const insets: RegionProposal[] = []
  for (const person of people.slice(0, MAX_PEOPLE)) {
    if (insets.some(({ rect }) => shows(rect, person))) continue
    const inset = best(person, insets)
    if (inset) insets.push(inset)
  }
  return insets.sort((a, b) => b.confidence - a.confidence)
}

/** Rectangles that are looked at: the best covered, and as many as hold a head somewhere among them. */
const FEW = 60
const MANY = 600

/** Rectangles come about by chance: without a face in it, an inset's sides must be lines nearly all along. */
const SURE_COVER = 0.82

/** How high heads are in the pictures of cameras, of the picture. */
const HEAD_IN_CAMERA = { least: 0.14, most: 0.95 }

/**
 * How surely an inset is a camera's picture, 0..1: its sides, that something lives in it, and that its surroundings
 * live otherwise.
 */
function cameraScore(
  { rect, cover, sides }: Inset,
  within: Rect,
  moving: SummedArea,
  motion: Motion,
  person: SeenPerson | null,
): number {
  const apart = Math.min(1, Math.abs(moving.share(rect) - shareAround(moving, rect, within)) / 0.35)
  if (person) {
    const head = person.head.height / rect.height
    if (head < HEAD_IN_CAMERA.least || head > HEAD_IN_CAMERA.most) return 0
    return cover * (0.85 + 0.05 * apart + (0.1 * sides) / 4)
  }
  if (motion.within(rect).usual < LIVE || apart < 0.3 || cover < SURE_COVER) return 0
  return cover * (0.55 + 0.4 * apart)
}
