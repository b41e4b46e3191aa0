import { areaOf, intersection, shareOfBoth, type Rect } from '../../geometry/rect'
import { isPerson, type Role } from '../../model/region'
import { Background, STILL_RANGE } from './background'
import { displaysIn } from './displays'
import { CAMERA_SIZES, insetsIn, surroundings, type Inset, type InsetSizes } from './insets'
import { StillLines } from './lines'
import { Motion } from './motion'
import { movingPart } from './movingPart'
import { shows, type SeenPerson } from './people'
import type { Stillness } from './stillness'
import { SummedArea } from '../../geometry/summedArea'
import { textIn } from './text'
import { tighten } from './tighten'
import { Edges, tilesOf, trim, type TileLines } from './tiles'

/**
 * What was recognised: a picture laid over another, one of several pictures side by side, slides, what is left inside
 * black bars, a display laid over a game, the one part that moves, somebody who fills the picture, or somebody whose
 * picture has no edges, or text that does not rest.
 */
export type RegionKind =
  'inset' | 'tile' | 'slides' | 'content' | 'display' | 'moving-part' | 'camera' | 'person' | 'text'

/** A place in the frame that probably is a region: whole pixels of the frame that was looked at. */
export interface RegionProposal {
  found: RegionKind
  role: Role
  rect: Rect
  /** 0..1 */
  confidence: number
}

/** What was seen of a recording: how its pixels behave, small pictures over time, and a few frames as they are. */
export interface RegionEvidence {
  stillness: Stillness
  cells: readonly Uint8Array[]
  /** 8-bit luma, `[height][width]` each. */
  frames: readonly Uint8Array[]
}

/** Surer than this, a proposal may be taken with others without being looked at. */
export const isSure = ({ confidence }: RegionProposal): boolean => confidence >= 0.6

/** Bars narrower than this are the ragged edge of a picture, px. */
const MIN_BAR = 4

/** Bars darker than this, in 8-bit luma, may be on one side alone. */
const BLACK_BAR = 28

/** Something keeps moving where at least this share of cells changes from frame to frame. */
const LIVE = 0.015

/** Slides rest: hardly anything changes in this share of the pairs of frames. */
const RESTFUL = 0.45

/** How a recording's picture is put together, as far as its pixels tell by themselves. */
export interface Structure {
  frame: Rect
  /** The frame without bars. */
  content: Rect
  /** The pictures that stand side by side in it. */
  tiles: readonly Rect[]
  stillness: Stillness
  motion: Motion
  lines: TileLines
  frames: readonly Uint8Array[]
}

/** The structure of what was seen; null for fewer than four frames, which tell nothing. */
export function structureOf(
  { stillness, cells, frames }: RegionEvidence,
  upright = new StillLines(stillness, 'x'),
  level = new StillLines(stillness, 'y'),
): Structure | null {
  if (stillness.frames < 4) return null
  const frame: Rect = { x: 0, y: 0, width: stillness.width, height: stillness.height }
  const motion = new Motion(cells, frame)
  const lines: TileLines = {
    upright,
    level,
    edges: new Edges(stillness),
    isLive: (rect) => motion.within(rect).usual >= LIVE,
  }
  return { frame, ...partsOf(frame, stillness, lines, motion), stillness, motion, lines, frames }
}

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
 * Proposes regions from how a picture is put together, what holds still and moves in it, and who is in it: `seen`,
 * null where nobody looked for faces. Empty when nothing is clear: never a guess.
 */
export function proposeRegions(structure: Structure | null, seen: readonly SeenPerson[] | null): RegionProposal[] {
  if (!structure) return []
  const people = seen && seen.filter(isSomebody)
  const { frame, content, tiles, stillness, motion, lines } = structure
  const proposals = tiles.length > 1 ? tilesProposals(tiles, frame, motion, people) : []
  const within = tiles.length > 1 ? tiles.reduce((a, b) => (areaOf(b) > areaOf(a) ? b : a)) : content
  const others = people?.filter((p) => !proposals.some(({ role, rect }) => isPerson(role) && shows(rect, p))) ?? null
  // In a call no picture is laid over another; over slides one may be.
  const insets =
    tiles.length > 1 && !proposals.some((p) => p.role === 'slides')
      ? []
      : insetProposals(within, stillness, lines, motion, others)
  const unframed = others?.filter((p) => isPlain(p) && !insets.some(({ rect }) => shows(rect, p))) ?? []
  const [inset = null] = insets
  const alone = tiles.length <= 1 && inset === null ? unframed.find((p) => fills(p, content)) : undefined
  if (alone) return [{ found: 'camera', role: 'face', rect: content, confidence: Math.min(0.95, 0.5 + alone.seen / 2) }]
  if (tiles.length <= 1) proposals.push(...restOf(frame, content, insets, motion))
  if (tiles.length <= 1) proposals.push(...overlaid(content, proposals, insets, stillness, lines, motion))
  if (tiles.length <= 1)
    proposals.push(...textsBeside([...proposals.filter((p) => p.found !== 'content'), ...insets], structure))
  // Beside slides somebody speaks; over a game somebody plays.
  const talks = proposals.some((p) => p.role === 'slides')
  proposals.push(...insets.map((p): RegionProposal => (talks && p.role === 'face' ? { ...p, role: 'speaker' } : p)))
  if (tiles.length <= 1) proposals.push(...unframed.slice(0, MAX_PEOPLE).map((p) => around(p, content)))
  return proposals.sort((a, b) => b.confidence - a.confidence)
}

/** A face in a camera's picture is found in most frames, or is hardly to be mistaken. */
const MIN_SURE = { score: 0.5, scoreTimesSeen: 0.28 }

const isSomebody = ({ score, seen }: SeenPerson): boolean =>
  score >= MIN_SURE.score && score * seen >= MIN_SURE.scoreTimesSeen

/** Without a camera's edges around them, things that look a little like faces are no faces. */
const PLAIN = { score: 0.6, seen: 0.8 }

const isPlain = ({ score, seen }: SeenPerson): boolean => score >= PLAIN.score && seen >= PLAIN.seen

/** So many people are looked for over one picture. */
const MAX_PEOPLE = 4

/** From this share of the picture's height on a head is what the picture shows. */
const LARGE_HEAD = 0.2

const fills = ({ head }: SeenPerson, content: Rect): boolean => head.height >= LARGE_HEAD * content.height

/** What there is beside, above and below a head when somebody is framed, in heads. */
const FRAMING = { beside: 0.8, above: 0.5, below: 0.9 }

/** Somebody whose picture has no edges that could be seen: head and shoulders. */
function around({ head: { x, y, width, height }, seen }: SeenPerson, content: Rect): RegionProposal {
  const wanted = {
    x: Math.round(x - FRAMING.beside * width),
    y: Math.round(y - FRAMING.above * height),
    width: Math.round((1 + 2 * FRAMING.beside) * width),
    height: Math.round((1 + FRAMING.above + FRAMING.below) * height),
  }
  const rect = intersection(wanted, content) ?? wanted
  return { found: 'person', role: 'face', rect, confidence: 0.5 * seen }
}

interface Parts {
  /** The frame without bars. */
  content: Rect
  /** The pictures that stand side by side in it. */
  tiles: Rect[]
}

/**
 * The frame taken apart along each plain colour that it may be laid out on: the way that leaves most pictures of one
 * size.
 */
function partsOf(frame: Rect, stillness: Stillness, lines: TileLines, motion: Motion): Parts {
  let best: Parts = { content: frame, tiles: [frame] }
  for (const background of [null, ...Background.candidates(stillness)])
    for (const trimAfterLines of background ? [false, true] : [false]) {
      // A part that never moves is a panel of the recorder's own, not a picture; but slides rest for long.
      const tiles = tilesOf(frame, background, lines, trimAfterLines).filter((t) => motion.within(t).most > LIVE)
      const content = background ? withoutBars(frame, background, lines) : frame
      // Lines of text part a slide too, but nothing lives in them.
      const live = tiles.filter(lines.isLive).length
      if (!content || tiles.length === 0 || (tiles.length > 1 && live < tiles.length / 2)) continue
      const better = worthOf(tiles) - worthOf(best.tiles)
      const tighter = sum(tiles.map(areaOf)) < sum(best.tiles.map(areaOf)) && hasBars(frame, content)
      if (better > 0 || (better === 0 && tighter)) best = { content, tiles }
    }
  return best
}

/** Sizes within this share of one another count as one. */
const SAME_SIZE = 0.04

/** How many pictures, less for those that are unlike the others: programs for calls give everybody the same room. */
function worthOf(tiles: readonly Rect[]): number {
  const alike = (a: Rect, b: Rect) =>
    Math.abs(a.width / b.width - 1) < SAME_SIZE && Math.abs(a.height / b.height - 1) < SAME_SIZE
  const most = Math.max(...tiles.map((t) => tiles.filter((o) => alike(t, o)).length))
  return most + (tiles.length - most) / 4
}

const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0)

/** What lies inside bars: they are black, or alike on both sides. A meadow at the bottom of the picture is neither. */
function withoutBars(frame: Rect, background: Background, lines: TileLines): Rect | null {
  const inside = trim(frame, background, lines.edges)
  if (!inside || background.luma <= BLACK_BAR) return inside
  const alike = (a: number, b: number) => Math.abs(a - b) <= MIN_BAR
  const sides = alike(inside.x, frame.width - inside.x - inside.width)
  const ends = alike(inside.y, frame.height - inside.y - inside.height)
  return {
    x: sides ? inside.x : 0,
    width: sides ? inside.width : frame.width,
    y: ends ? inside.y : 0,
    height: ends ? inside.height : frame.height,
  }
}

function hasBars(frame: Rect, content: Rect): boolean {
  const gaps = [
    content.x,
    content.y,
    frame.width - content.x - content.width,
    frame.height - content.y - content.height,
  ]
  return Math.max(...gaps) >= MIN_BAR
}

/** Pictures side by side: slides, people, and of those that never show anybody one that moves. */
function tilesProposals(
  tiles: readonly Rect[],
  frame: Rect,
  motion: Motion,
  people: readonly SeenPerson[] | null,
): RegionProposal[] {
  const proposals = tiles.map((rect): RegionProposal => {
    const { restful, usual } = motion.within(rect)
    if (restful >= RESTFUL && areaOf(rect) > 0.2 * areaOf(frame))
      return { found: 'slides', role: 'slides', rect, confidence: 0.85 }
    if (people === null) return { found: 'tile', role: 'speaker', rect, confidence: 0.8 }
    if (people.some((p) => shows(rect, p))) return { found: 'tile', role: 'speaker', rect, confidence: 0.95 }
    return { found: 'tile', role: 'game', rect, confidence: usual >= LIVE ? 0.6 : 0 }
  })
  const games = proposals.filter((p) => p.role === 'game')
  return proposals.filter((p) => p.role !== 'game' || (games.length === 1 && p.confidence > 0))
}

/** The whole of the content, by how it behaves beside an inset: slides rest, a game does not. */
function restOf(frame: Rect, content: Rect, insets: readonly RegionProposal[], motion: Motion): RegionProposal[] {
  const [inset] = insets
  const { usual, most, restful } = motion.within(content)
  if (inset && restful < RESTFUL && usual >= LIVE && !isMostlyWithin(content, inset.rect, motion))
    return [
      {
        found: 'content',
        role: 'game',
        rect: insets.reduce((rest, i) => largestBeside(rest, i.rect), content),
        confidence: 0.6,
      },
    ]
  if (inset && most > 0.05) return [{ found: 'slides', role: 'slides', rect: content, confidence: 0.7 }]
  return hasBars(frame, content) ? [{ found: 'content', role: 'whole', rect: content, confidence: 0.9 }] : []
}

/**
 * Displays over what moves; or, where nothing else was clear and only one part of the picture moves, that part: a
 * board on a desk.
 */
function overlaid(
  content: Rect,
  proposals: readonly RegionProposal[],
  insets: readonly RegionProposal[],
  stillness: Stillness,
  lines: TileLines,
  motion: Motion,
): RegionProposal[] {
  if (proposals.some((p) => p.role === 'slides')) return []
  if (motion.within(content).usual >= LIVE) {
    const displays = displaysIn(
      content,
      insets.map((i) => i.rect),
      stillness,
      lines.upright,
      lines.level,
    )
    if (displays.length > 0)
      return displays.map(({ rect, confidence }) => ({ found: 'display', role: 'hud', rect, confidence }))
  }
  const part = insets.length > 0 || proposals.length > 0 ? null : movingPart(content, stillness, motion)
  return part ? [{ found: 'moving-part', role: 'game', rect: part, confidence: 0.6 }] : []
}

/**
 * The largest part of `content` that runs along a whole side of it and has nothing of `inset` in it: shown beside it,
 * nothing is shown twice.
 */
function largestBeside(content: Rect, inset: Rect): Rect {
  if (!intersection(content, inset)) return content
  const [right, bottom] = [content.x + content.width, content.y + content.height]
  const parts: Rect[] = [
    { ...content, width: inset.x - content.x },
    { ...content, x: inset.x + inset.width, width: right - inset.x - inset.width },
    { ...content, height: inset.y - content.y },
    { ...content, y: inset.y + inset.height, height: bottom - inset.y - inset.height },
  ]
  return parts.reduce((a, b) => (areaOf(b) > areaOf(a) ? b : a))
}

/** From so much likeness to lines of text on it is text. */
const TEXT = 0.45
const TEXT_COVER = 0.7
const TEXT_SIZES: InsetSizes = { leastSide: 0.08, mostSide: 0.85, leastProportion: 0.25, mostProportion: 3 }

/** Text that does not rest: what people write to one another, or a list that grows. */
function textsBeside(
  known: readonly RegionProposal[],
  { content, lines, frames, stillness }: Structure,
): RegionProposal[] {
  if (known.some((p) => p.role === 'slides')) return []
  const found: RegionProposal[] = []
  for (const { rect, cover } of insetsIn(content, lines.upright, lines.level, TEXT_SIZES, MANY)) {
    if (cover < TEXT_COVER || [...known, ...found].some((p) => intersection(p.rect, rect))) continue
    if (textIn(rect, frames, stillness.width) >= TEXT)
      found.push({ found: 'text', role: 'chat', rect, confidence: 0.7 })
  }
  return found
}

/** Whether what moves in `content` moves in `part` of it, and hardly anywhere else. */
function isMostlyWithin(content: Rect, part: Rect, motion: Motion): boolean {
  const inside = motion.within(part).usual * areaOf(part)
  const all = motion.within(content).usual * areaOf(content)
  return all > 0 && inside / all > 0.8
}

/**
 * Pictures laid over another, the surest first. Where people were looked for: one for each who has a picture of their
 * own; and where there is nobody, the best one, which is no camera then.
 */
function insetProposals(
  within: Rect,
  stillness: Stillness,
  lines: TileLines,
  motion: Motion,
  people: readonly SeenPerson[] | null,
): RegionProposal[] {
  const moving = new SummedArea(stillness, (i) => (stillness.range[i] as number) > 2 * STILL_RANGE)
  const candidates = insetsIn(within, lines.upright, lines.level, CAMERA_SIZES, people?.length ? MANY : FEW)
  const best = (person: SeenPerson | null, taken: readonly RegionProposal[]): RegionProposal | null => {
    const [first] = candidates
      .filter(({ rect }) => (person === null || shows(rect, person)) && !taken.some((t) => intersection(t.rect, rect)))
      .map((inset) => ({ inset, score: insetScore(inset, within, moving, motion, person) }))
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
  const insets: RegionProposal[] = []
  if (!people?.length) {
    const inset = best(null, [])
    return inset ? [inset] : []
  }
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
function insetScore(
  { rect, cover, sides }: Inset,
  within: Rect,
  moving: SummedArea,
  motion: Motion,
  person: SeenPerson | null,
): number {
  const around = surroundings(rect, within)
  const inside = moving.share(rect)
  const outside = sum(around.map((r) => moving.count(r))) / sum(around.map(areaOf))
  const apart = Math.min(1, Math.abs(inside - outside) / 0.35)
  if (person) {
    const head = person.head.height / rect.height
    if (head < HEAD_IN_CAMERA.least || head > HEAD_IN_CAMERA.most) return 0
    return cover * (0.85 + 0.05 * apart + (0.1 * sides) / 4)
  }
  if (motion.within(rect).usual < LIVE || apart < 0.3 || cover < SURE_COVER) return 0
  return cover * (0.55 + 0.4 * apart)
}
