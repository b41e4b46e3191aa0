import { areaOf, intersection, scaleRect, type Rect, type Size } from '../geometry/rect'
import type { ArrangementFault, RoomWanted } from '../layout/arrangementChanges'
import { isRead, MATTERS } from '../layout/needs'
import { ownArea, usualArea } from '../layout/wordAreas'
import { recordingOf, setupOf, type Edit } from '../model/edit'
import type { Area, Arrangement } from '../model/layout'
import { isPerson } from '../model/region'
import type { Shape } from '../model/shape'
import { MIN_PART, WHOLE_PART, type SeenThing } from './cropForNeeds'
import { blowUp } from './panelCrop'
import type { PanelSource } from './feeds'
import { sameFootage, thingsIn, type PlacedPanel } from './placeArrangement'
import { IS_THERE, legibility, MIN_LEGIBLE, showingOf, SOFT } from './showing'
import { BAD_PLACE, costOf, coveredByFeeds, FreeGround, type Kept, type Place } from './freeGround'

/** Where words go in an arrangement, px of the canvas. */
export type WordAreas = Record<Area['kind'], Rect>

/** How good an arrangement's pictures are: `cost` grows with what is wrong, 0 is best. */
export interface PictureJudgement {
  cost: number
  faults: ReadonlySet<ArrangementFault>
  /** What something put over the pictures should leave free; words are not among it. */
  kept: readonly Kept[]
}

/** How good an arrangement is, with the words and marks that lie over it. */
export interface Judgement extends PictureJudgement {
  areas: WordAreas
}

const FAULT_COST: Readonly<Record<ArrangementFault, number>> = {
  missing: 20,
  repeats: 20,
  'head-cut': 14,
  'read-cut': 12,
  'focus-cut': 10,
  twice: 14,
  small: 10,
  enlarged: 8,
  words: 10,
}

const SOFT_COST = 0.4
/** Somebody has to turn the phone: only who wants that chooses it. */
const TURNED = 3
/** Bare ground, of the whole canvas; of one plain colour it looks left over. */
const GROUND = { drawn: 1.2, plain: 1.8 } as const
/** A picture that lies over another has edges: words across them look put there by accident. */
const EDGE_MATTERS = 0.3
const WORDS_MATTER = 1
/** Of a head that is guessed at this much is enough. */
const GUESSED_PART = 0.9

/** Judges what an arrangement's panels, as placed, show in a shape; words are not looked at. */
export function judgePictures(
  edit: Edit,
  shape: Shape,
  { backdrop }: Arrangement,
  placed: readonly PlacedPanel[],
): PictureJudgement {
  const faults = new Set<ArrangementFault>()
  let cost = leftOut(edit, placed)
  const fault = (kind: ArrangementFault) => {
    // The same once more is not as bad again.
    cost += faults.has(kind) ? FAULT_COST[kind] / 4 : FAULT_COST[kind]
    faults.add(kind)
  }
  const kept: Kept[] = coveredByFeeds(shape)
  if (repeatsPeople(edit, placed)) fault('repeats')
  for (const panel of placed) {
    const { picture, region, insetId, source } = panel
    if (!picture || !region) {
      fault('missing')
      continue
    }
    if (insetId !== null) kept.push({ rect: picture.dest, matters: EDGE_MATTERS })
    const { video } = recordingOf(edit, source.recordingId)
    const enlarged = blowUp(picture)
    if (enlarged > SOFT.most && picture.crop.width < video.width) fault('enlarged')
    if (isRead(region.role) && legibility(enlarged, video, shape) < MIN_LEGIBLE) fault('small')
    cost += SOFT_COST * Math.max(0, enlarged - SOFT.seen) + (panel.panel.turn % 2 === 0 ? 0 : TURNED)
  }
  const footages = byFootage(placed)
  for (const shown of footages) {
    if (new Set(shown.map((p) => p.region?.id)).size < shown.length) fault('repeats')
    const [first] = shown
    if (!first) continue
    // Of people the whole picture is all of them.
    const everybody = shown.some((p) => p.region?.role === 'whole') && isOfPeople(edit, first.source)
    const { video } = recordingOf(edit, first.source.recordingId)
    const things = thingsIn(edit, first.source)
    for (const thing of things) {
      const small = judgeThing(thing, { shown, placed, everybody, kept, shape, video, fault })
      cost += small / things.filter((t) => t.kind === thing.kind).length
    }
  }
  const covered = placed.reduce((sum, p) => sum + (p.picture && p.insetId === null ? areaOf(p.picture.dest) : 0), 0)
  const bare = Math.max(0, 1 - covered / areaOf(shape))
  if (backdrop.kind === 'mirror' && bare > 0.01 && kept.some((k) => k.matters >= MATTERS.read)) fault('repeats')
  const ground = backdrop.kind === 'colour' ? GROUND.plain : GROUND.drawn
  return { cost: cost + ground * bare, faults, kept }
}

/** The panels that show something, those of the same footage together; each that plays its own by itself. */
function byFootage(placed: readonly PlacedPanel[]): PlacedPanel[][] {
  const footages: PlacedPanel[][] = []
  for (const panel of placed) {
    if (!panel.picture || !panel.region) continue
    const same = footages.find(([first]) => first && sameFootage(first.source, panel.source))
    if (same) same.push(panel)
    else footages.push([panel])
  }
  return footages
}

/** Finds the places for words and marks in an arrangement whose pictures have been judged; costs never become less. */
export function judgeWords(
  shape: Shape,
  arrangement: Arrangement,
  { cost, faults, kept }: PictureJudgement,
  wanted: RoomWanted,
): Judgement {
  const { areas, worst } = placeWords(shape, arrangement, kept, wanted)
  const bad = worst >= BAD_PLACE
  return {
    cost: cost + worst + (bad ? FAULT_COST.words : 0),
    faults: bad ? new Set([...faults, 'words' as const]) : faults,
    kept,
    areas,
  }
}

/** What a region of a setup costs that is nowhere to be seen; of several people each less, but all of them more. */
const LEFT_OUT = { person: 1.2, scene: 0.9, read: 0.3 } as const

/** People's own pictures that take up more of the frame than this leave nothing else that is worth a panel. */
const MOST_OF_FRAME = 0.4

/** Whether a setup's people are most of what there is to see. */
function isOfPeople(edit: Edit, { setupId }: PanelSource): boolean {
  const { regions } = setupOf(edit, setupId)
  const people = regions.filter((r) => isPerson(r.role))
  return people.reduce((sum, { bounds }) => sum + areaOf(bounds), 0) > MOST_OF_FRAME
}

/** Whether a panel shows the whole picture beside somebody who is most of it. */
function repeatsPeople(edit: Edit, placed: readonly PlacedPanel[]): boolean {
  const whole = placed.find((p) => p.region?.role === 'whole' && !p.source.feed)
  return (
    whole !== undefined &&
    placed.some((p) => p.region && isPerson(p.region.role) && sameFootage(p.source, whole.source)) &&
    isOfPeople(edit, whole.source)
  )
}

/** What it costs that regions are nowhere to be seen. */
function leftOut(edit: Edit, placed: readonly PlacedPanel[]): number {
  const [first] = placed
  if (!first) return 0
  const { regions } = setupOf(edit, first.source.setupId)
  const { video } = recordingOf(edit, first.source.recordingId)
  const people = regions.filter((r) => isPerson(r.role)).length
  return regions.reduce((sum, { role, bounds }) => {
    const rect = scaleRect(bounds, video.width, video.height)
    const isSeen = placed.some(({ picture }) => {
      const both = picture && intersection(rect, picture.crop)
      return both && areaOf(both) > areaOf(rect) / 4
    })
    if (isSeen) return sum
    if (isPerson(role)) return sum + LEFT_OUT.person / Math.sqrt(people)
    if (role === 'slides' || role === 'game') return sum + LEFT_OUT.scene
    return isRead(role) ? sum + LEFT_OUT.read : sum
  }, 0)
}

/** What a thing is judged by. */
interface Judging {
  /** The panels that show its footage, and all. */
  shown: readonly PlacedPanel[]
  placed: readonly PlacedPanel[]
  /** Whether everybody in it is to be seen. */
  everybody: boolean
  shape: Shape
  /** Size of the recording, px. */
  video: Size
  /** Takes what is to be left free. */
  kept: Kept[]
  fault: (kind: ArrangementFault) => void
}

/** How large a head is best at least, of the shorter side, and what is read, of how large it was; what less costs. */
const LARGE_ENOUGH = { head: 0.28, headCost: 1.8, read: 0.85, readCost: 0.9 } as const

/** Judges one thing wherever it is shown; gives what it costs that it is small. */
function judgeThing({ kind, rect, regionId, guessed }: SeenThing, judging: Judging): number {
  const { shown, placed, everybody, shape, video, kept, fault } = judging
  let times = 0
  let cut = false
  let asked = false
  let largest = 0
  for (const panel of shown) {
    const { region } = panel
    if (!region) continue
    const isOwn = region.id === regionId
    asked ||= isOwn && isPerson(region.role)
    const showing = showingOf(rect, panel, placed)
    if (!showing || (showing.held <= MIN_PART && !isOwn)) continue
    const seen = showing.rect
    kept.push({ rect: seen, matters: MATTERS[kind] })
    if (kind === 'rest') continue
    const inCorner = !guessed && isOutsideRound(seen, panel)
    const left = showing.held * (1 - showing.hidden) * (inCorner ? 0.9 : 1)
    if (left < (guessed ? GUESSED_PART : WHOLE_PART) && (left > MIN_PART || isOwn)) cut = true
    if (left >= IS_THERE) times++
    largest = Math.max(largest, Math.max(seen.width, seen.height))
  }
  if (kind === 'head') {
    if (cut || ((asked || everybody) && times === 0)) fault('head-cut')
    if (times > 1) fault('twice')
    const height = largest / Math.min(shape.width, shape.height)
    return times === 0 ? 0 : LARGE_ENOUGH.headCost * Math.max(0, LARGE_ENOUGH.head - height)
  }
  if (cut) fault(kind === 'read' ? 'read-cut' : 'focus-cut')
  if (kind !== 'read') return 0
  const scale = legibility(largest / Math.max(rect.width, rect.height), video, shape)
  return times === 0 ? 0 : LARGE_ENOUGH.readCost * Math.max(0, LARGE_ENOUGH.read - scale)
}

/** Points a side at which it is looked whether a round window cuts something, and how much of it may be cut. */
const ROUND_POINTS = 10
const MAX_ROUNDED_OFF = 0.015

/** Whether a round window cuts more than a sliver off the corners of what it shows. */
function isOutsideRound(rect: Rect, { panel, region, picture }: PlacedPanel): boolean {
  if (!picture || (panel.outline ?? region?.outline)?.mask.kind !== 'ellipse') return false
  const { x, y, width, height } = picture.dest
  let outside = 0
  for (let i = 0; i < ROUND_POINTS; i++)
    for (let j = 0; j < ROUND_POINTS; j++) {
      const [px, py] = [
        rect.x + ((i + 0.5) / ROUND_POINTS) * rect.width,
        rect.y + ((j + 0.5) / ROUND_POINTS) * rect.height,
      ]
      if (((px - x) / width - 0.5) ** 2 + ((py - y) / height - 0.5) ** 2 > 0.25) outside++
    }
  return outside > MAX_ROUNDED_OFF * ROUND_POINTS ** 2
}

/** Finds places for words, then for marks; `worst`: what the worst of them costs. */
function placeWords(shape: Shape, arrangement: Arrangement, kept: readonly Kept[], wanted: RoomWanted) {
  const ground = new FreeGround(shape, kept)
  for (const rect of wanted.fixed) ground.add(rect, WORDS_MATTER)
  const areas: WordAreas = { titleArea: usualArea('titleArea', shape), captionArea: usualArea('captionArea', shape) }
  let worst = 0
  const kinds = [...(wanted.title ? ['titleArea' as const] : []), ...(wanted.captions ? ['captionArea' as const] : [])]
  const take = (kind: Area['kind'], { rect, cost }: Place) => {
    areas[kind] = rect
    ground.add(rect, WORDS_MATTER)
    worst = Math.max(worst, cost)
  }
  // Words that have an area of their own are there before others look for a place.
  const own = kinds.map((kind) => ({ kind, rect: ownArea(kind, arrangement, shape) }))
  for (const { kind, rect } of own) if (rect) take(kind, { rect, cost: costOf(rect, kept) })
  for (const { kind, rect } of own) if (!rect) take(kind, ground.placeWords(kind))
  if (worst >= BAD_PLACE) return { areas, worst }
  for (const usual of wanted.marks) {
    const { rect, cost } = ground.placeMark(usual)
    ground.add(rect, WORDS_MATTER)
    worst = Math.max(worst, cost)
  }
  return { areas, worst }
}
