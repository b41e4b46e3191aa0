import { areaOf, type Rect } from '../../geometry/rect'
import type { Role } from '../../model/region'
import { Background, STILL_RANGE } from './background'
import { displaysIn } from './displays'
import { insetsIn, surroundings, type Inset } from './insets'
import { StillLines } from './lines'
import { Motion } from './motion'
import { movingPart } from './movingPart'
import type { Stillness } from './stillness'
import { SummedArea } from '../../geometry/summedArea'
import { tighten } from './tighten'
import { Edges, tilesOf, trim, type TileLines } from './tiles'

/**
 * What was recognised: a picture laid over another, one of several pictures side by side, slides, what is left inside
 * black bars, a display laid over a game, or the one part that moves.
 */
export type RegionKind = 'inset' | 'tile' | 'slides' | 'content' | 'display' | 'moving-part'

/** A place in the frame that probably is a region: whole pixels of the frame that was looked at. */
export interface RegionProposal {
  found: RegionKind
  role: Role
  rect: Rect
  /** 0..1 */
  confidence: number
}

/**
 * What was seen of a recording: how its pixels behave, small pictures over time, and where faces were, if anybody
 * looked for them.
 */
export interface RegionEvidence {
  stillness: Stillness
  cells: readonly Uint8Array[]
  faces: readonly Rect[]
}

/** Bars narrower than this are the ragged edge of a picture, px. */
const MIN_BAR = 4

/** Bars darker than this, in 8-bit luma, may be on one side alone. */
const BLACK_BAR = 28

/** Something keeps moving where at least this share of cells changes from frame to frame. */
const LIVE = 0.015

/** Slides rest: hardly anything changes in this share of the pairs of frames. */
const RESTFUL = 0.45

/**
 * Proposes regions from what holds still and what moves. Empty when nothing is clear: never a guess. Needs at least
 * four frames.
 */
export function proposeRegions(
  seen: RegionEvidence,
  upright = new StillLines(seen.stillness, 'x'),
  level = new StillLines(seen.stillness, 'y'),
): RegionProposal[] {
  const { stillness, cells } = seen
  if (stillness.frames < 4) return []
  const frame: Rect = { x: 0, y: 0, width: stillness.width, height: stillness.height }
  const motion = new Motion(cells, frame)
  const lines: TileLines = {
    upright,
    level,
    edges: new Edges(stillness),
    isLive: (rect) => motion.within(rect).usual >= LIVE,
  }
  const { content, tiles } = partsOf(frame, stillness, lines, motion)
  const proposals = tiles.length > 1 ? tiles.map((tile) => tileProposal(tile, frame, motion, seen.faces)) : []
  const within = tiles.length > 1 ? tiles.reduce((a, b) => (areaOf(b) > areaOf(a) ? b : a)) : content
  // In a call no picture is laid over another; over slides one may be.
  const inset =
    tiles.length > 1 && !proposals.some((p) => p.role === 'slides')
      ? null
      : bestInset(within, stillness, lines, motion, seen.faces)
  if (tiles.length <= 1) proposals.push(...restOf(frame, content, inset, motion))
  if (tiles.length <= 1) proposals.push(...overlaid(content, proposals, inset, stillness, lines, motion))
  // Beside slides somebody speaks; over a game somebody plays.
  if (inset) proposals.push(proposals.some((p) => p.role === 'slides') ? { ...inset, role: 'speaker' } : inset)
  return proposals.sort((a, b) => b.confidence - a.confidence)
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

function tileProposal(rect: Rect, frame: Rect, motion: Motion, faces: readonly Rect[]): RegionProposal {
  const { restful } = motion.within(rect)
  if (restful >= RESTFUL && areaOf(rect) > 0.2 * areaOf(frame))
    return { found: 'slides', role: 'slides', rect, confidence: 0.85 }
  return { found: 'tile', role: 'speaker', rect, confidence: holdsFace(rect, faces) ? 0.95 : 0.8 }
}

/** The whole of the content, by how it behaves beside an inset: slides rest, a game does not. */
function restOf(frame: Rect, content: Rect, inset: RegionProposal | null, motion: Motion): RegionProposal[] {
  const { usual, most, restful } = motion.within(content)
  if (inset && restful < RESTFUL && usual >= LIVE && !isMostlyWithin(content, inset.rect, motion))
    return [{ found: 'content', role: 'game', rect: largestBeside(content, inset.rect), confidence: 0.6 }]
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
  inset: RegionProposal | null,
  stillness: Stillness,
  lines: TileLines,
  motion: Motion,
): RegionProposal[] {
  if (proposals.some((p) => p.role === 'slides')) return []
  if (motion.within(content).usual >= LIVE) {
    const displays = displaysIn(content, inset?.rect ?? null, stillness, lines.upright, lines.level)
    if (displays.length > 0)
      return displays.map(({ rect, confidence }) => ({ found: 'display', role: 'hud', rect, confidence }))
  }
  const part = inset || proposals.length > 0 ? null : movingPart(content, stillness, motion)
  return part ? [{ found: 'moving-part', role: 'game', rect: part, confidence: 0.6 }] : []
}

/**
 * The largest part of `content` that runs along a whole side of it and has nothing of `inset` in it: shown beside it,
 * nothing is shown twice.
 */
function largestBeside(content: Rect, inset: Rect): Rect {
  const [right, bottom] = [content.x + content.width, content.y + content.height]
  const parts: Rect[] = [
    { ...content, width: inset.x - content.x },
    { ...content, x: inset.x + inset.width, width: right - inset.x - inset.width },
    { ...content, height: inset.y - content.y },
    { ...content, y: inset.y + inset.height, height: bottom - inset.y - inset.height },
  ]
  return parts.reduce((a, b) => (areaOf(b) > areaOf(a) ? b : a))
}

/** Whether what moves in `content` moves in `part` of it, and hardly anywhere else. */
function isMostlyWithin(content: Rect, part: Rect, motion: Motion): boolean {
  const inside = motion.within(part).usual * areaOf(part)
  const all = motion.within(content).usual * areaOf(content)
  return all > 0 && inside / all > 0.8
}

function bestInset(
  within: Rect,
  stillness: Stillness,
  lines: TileLines,
  motion: Motion,
  faces: readonly Rect[],
): RegionProposal | null {
  const moving = new SummedArea(stillness, (i) => (stillness.range[i] as number) > 2 * STILL_RANGE)
  const scored = insetsIn(within, lines.upright, lines.level)
    .map((inset) => ({ inset, score: insetScore(inset, within, moving, motion, faces) }))
    .filter((s) => s.score > 0)
    .sort((a, b) => b.score - a.score)
  const [best] = scored
  if (!best) return null
  return {
    found: 'inset',
    role: 'face',
    rect: tighten(best.inset.rect, stillness, lines.upright, lines.level),
    confidence: Math.min(0.97, best.score),
  }
}

/** Rectangles come about by chance: without a face in it, an inset's sides must be lines nearly all along. */
const SURE_COVER = 0.82

/**
 * How surely an inset is a camera's picture, 0..1: its sides, that something lives in it, and that its surroundings
 * live otherwise.
 */
function insetScore(
  { rect, cover }: Inset,
  within: Rect,
  moving: SummedArea,
  motion: Motion,
  faces: readonly Rect[],
): number {
  const { usual } = motion.within(rect)
  if (usual < LIVE) return 0
  const around = surroundings(rect, within)
  const inside = moving.share(rect)
  const outside = sum(around.map((r) => moving.count(r))) / sum(around.map(areaOf))
  const apart = Math.min(1, Math.abs(inside - outside) / 0.35)
  const face = holdsFace(rect, faces)
  if (!face && (apart < 0.3 || cover < SURE_COVER)) return 0
  return cover * (face ? 1 : 0.55 + 0.4 * apart)
}

function holdsFace(rect: Rect, faces: readonly Rect[]): boolean {
  return faces.some(
    (f) =>
      f.x + f.width / 2 > rect.x &&
      f.x + f.width / 2 < rect.x + rect.width &&
      f.y + f.height / 2 > rect.y &&
      f.y + f.height / 2 < rect.y + rect.height,
  )
}
