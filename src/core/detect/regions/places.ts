import { z } from 'zod'
import { clamp } from '../../clamp'
import { areaOf, centreOf, scaleRect, type Rect, type Size } from '../../geometry/rect'
import type { SeenPerson } from './people'
import type { RegionKind, RegionProposal } from './proposal'

/**
 * Something that a scene shows in a place of its own, as fractions of the frame: a picture laid over another, one of
 * several side by side, text, or somebody's head.
 */
export const scenePlace = z.object({
  kind: z.enum(['inset', 'tile', 'text', 'head']),
  x: z.number().min(0).max(1),
  y: z.number().min(0).max(1),
  width: z.number().positive().max(1),
  height: z.number().positive().max(1),
})
export type ScenePlace = z.infer<typeof scenePlace>

export const MAX_PLACES = 40

/** By what was recognised; the rest is content, or what is left beside others. */
const KINDS: Partial<Record<RegionKind, ScenePlace['kind']>> = {
  inset: 'inset',
  tile: 'tile',
  slides: 'tile',
  display: 'text',
  text: 'text',
}

/** What fills more of the frame than this is the frame. */
const FRAME = 0.8

/** Where a scene's own things are: of what was found, and of who was seen, in a frame of `size` px. */
export function placesOf(
  proposals: readonly RegionProposal[],
  people: readonly SeenPerson[],
  { width, height }: Size,
): ScenePlace[] {
  const within = (kind: ScenePlace['kind'], rect: Rect): ScenePlace => {
    const [left, top] = [Math.max(0, rect.x), Math.max(0, rect.y)]
    const [right, bottom] = [Math.min(width, rect.x + rect.width), Math.min(height, rect.y + rect.height)]
    const shown = { x: left, y: top, width: right - left, height: bottom - top }
    return { kind, ...scaleRect(shown, 1 / width, 1 / height) }
  }
  return [
    ...proposals.flatMap(({ found, rect }) => {
      const kind = KINDS[found]
      return kind ? [within(kind, rect)] : []
    }),
    ...people.map(({ head }) => within('head', head)),
  ]
    .filter((p) => p.width > 0 && p.height > 0 && areaOf(p) < FRAME)
    .slice(0, MAX_PLACES)
}

/** How much a thing counts that is there in both, and that is only in one: text is often not found. */
const WEIGHT = { inset: { both: 3, one: 3 }, tile: { both: 3, one: 3 }, text: { both: 1, one: 0.4 } } as const

/**
 * Edges that lie so near, of the frame's width or height, are the same; and so far apart, other ones. Tiles lie
 * exactly.
 */
const OFF = {
  inset: { same: 0.002, other: 0.016 },
  tile: { same: 0.003, other: 0.018 },
  text: { same: 0.008, other: 0.06 },
} as const
/** One edge of the four may be taken for a line beside it, and lie so far off at most. */
const ONE_EDGE = { same: 0.012, other: 0.04 }

/** For a head where the other has a camera's picture with a head: its edges were not seen this time. */
const SAME_HEAD = 0.75
/** Such heads lie within so many of their heights, and differ at most so much in size. */
const HEADS = { away: 0.8, ratio: 1.4 }

/** How alike two scenes are in where their things are, 0..1; null where one has none. */
export function placesAlike(a: readonly ScenePlace[], b: readonly ScenePlace[]): number | null {
  const free = b.filter((p) => p.kind !== 'head')
  if (a.length === 0 || b.length === 0) return null
  let [alike, all] = [0, 0]
  const count = (kind: ScenePlace['kind'], share: number) => {
    if (kind === 'head') return
    const weight = share > 0 ? WEIGHT[kind].both : WEIGHT[kind].one
    alike += weight * share
    all += weight
  }
  for (const place of a) {
    if (place.kind === 'head') continue
    const [best] = free.map((other) => ({ other, share: sameness(place, other) })).sort((x, y) => y.share - x.share)
    if (best && best.share > 0) {
      free.splice(free.indexOf(best.other), 1)
      count(place.kind, best.share)
    } else count(place.kind, sameHeadIn(place, a, b))
  }
  for (const place of free) count(place.kind, sameHeadIn(place, b, a))
  return all === 0 ? null : alike / all
}

function sameness(a: ScenePlace, b: ScenePlace): number {
  if (a.kind !== b.kind || a.kind === 'head') return 0
  const [, , third = 0, worst = 0] = [
    a.x - b.x,
    a.y - b.y,
    a.x + a.width - b.x - b.width,
    a.y + a.height - b.y - b.height,
  ]
    .map(Math.abs)
    .sort((x, y) => x - y)
  return nearness(third, OFF[a.kind]) * nearness(worst, a.kind === 'inset' ? ONE_EDGE : OFF[a.kind])
}

/** 1 for what is no farther off than the same may be, 0 for what is as far off as another. */
const nearness = (off: number, { same, other }: { same: number; other: number }): number =>
  clamp((other - off) / (other - same), { least: 0, most: 1 })

/** Whether the head in a camera's picture is in the other scene too, where no picture's edges were seen around it. */
function sameHeadIn(place: ScenePlace, own: readonly ScenePlace[], others: readonly ScenePlace[]): number {
  if (place.kind !== 'inset') return 0
  const heads = own.filter((p) => p.kind === 'head' && isCentred(p, place))
  const bare = others.filter((p) => p.kind === 'head' && !others.some((o) => o.kind === 'inset' && isCentred(p, o)))
  const same = heads.some((head) =>
    bare.some((other) => {
      const [from, to] = [centreOf(head), centreOf(other)]
      const ratio = Math.max(head.height / other.height, other.height / head.height)
      return Math.hypot(from.x - to.x, from.y - to.y) <= HEADS.away * head.height && ratio <= HEADS.ratio
    }),
  )
  return same ? SAME_HEAD : 0
}

function isCentred(inner: Rect, outer: Rect): boolean {
  const { x, y } = centreOf(inner)
  return x > outer.x && x < outer.x + outer.width && y > outer.y && y < outer.y + outer.height
}
