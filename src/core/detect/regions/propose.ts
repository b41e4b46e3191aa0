import { areaOf, intersection, type Rect } from '../../geometry/rect'
import { isPerson } from '../../model/region'
import { camerasIn, MAX_PEOPLE } from './cameras'
import { displaysIn } from './displays'
import type { Motion } from './motion'
import { movingPart } from './movingPart'
import { shows, type SeenPerson } from './people'
import type { RegionProposal } from './proposal'
import { hasBars, isOfOneSize, LIVE, type Structure } from './structure'
import { textsBeside, withTexts } from './text'

/** Slides rest: hardly anything changes in this share of the pairs of frames. */
const RESTFUL = 0.45

/**
 * Proposes regions from how a picture is put together, what holds still and moves in it, and who is in it: `seen`,
 * null where nobody looked for faces. Empty when nothing is clear: never a guess.
 */
export function proposeRegions(structure: Structure | null, seen: readonly SeenPerson[] | null): RegionProposal[] {
  if (!structure) return []
  const people = seen && seen.filter(isSomebody)
  const proposals = structure.tiles.length > 1 ? sideBySide(structure, people, seen) : inOnePicture(structure, people)
  return proposals.sort((a, b) => b.confidence - a.confidence)
}

/** Several pictures; in a call nothing is laid over them, over slides a camera may be. */
function sideBySide(
  structure: Structure,
  people: readonly SeenPerson[] | null,
  seen: readonly SeenPerson[] | null,
): RegionProposal[] {
  const proposals = tilesProposals(structure, people, seen)
  if (!proposals.some((p) => p.role === 'slides')) return proposals
  const largest = structure.tiles.reduce((a, b) => (areaOf(b) > areaOf(a) ? b : a))
  const others = people?.filter((p) => !proposals.some(({ role, rect }) => isPerson(role) && shows(rect, p))) ?? null
  return [...proposals, ...camerasIn(largest, structure, others).map(beside(proposals))]
}

/** A picture with what is laid over it. */
function inOnePicture(structure: Structure, people: readonly SeenPerson[] | null): RegionProposal[] {
  const { content } = structure
  const insets = withTexts(camerasIn(content, structure, people), structure)
  const unframed = people?.filter((p) => isPlain(p) && !insets.some(({ rect }) => shows(rect, p))) ?? []
  const alone = insets.length === 0 ? unframed.find((p) => fills(p, content)) : undefined
  if (alone) return [{ found: 'camera', role: 'face', rect: content, confidence: Math.min(0.95, 0.5 + alone.seen / 2) }]
  const rest = restOf(structure, insets)
  const displays = overlaid(structure, rest, insets)
  return [
    ...rest,
    ...displays,
    ...textsBeside([...rest.filter((p) => p.role === 'slides'), ...displays, ...insets], structure),
    ...insets.map(beside(rest)),
    ...unframed.slice(0, MAX_PEOPLE).map((p) => around(p, content)),
  ]
}

/** Beside slides somebody speaks; over a game somebody plays. */
const beside =
  (proposals: readonly RegionProposal[]) =>
  (inset: RegionProposal): RegionProposal =>
    inset.role === 'face' && proposals.some((p) => p.role === 'slides') ? { ...inset, role: 'speaker' } : inset

/** A face in a camera's picture is found in most frames, or is hardly to be mistaken. */
const MIN_SURE = { score: 0.5, scoreTimesSeen: 0.28 }

const isSomebody = ({ score, seen }: SeenPerson): boolean =>
  score >= MIN_SURE.score && score * seen >= MIN_SURE.scoreTimesSeen

/** Without a camera's edges around them, things that look a little like faces are no faces. */
const PLAIN = { score: 0.6, seen: 0.8 }

const isPlain = ({ score, seen }: SeenPerson): boolean => score >= PLAIN.score && seen >= PLAIN.seen

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

/**
 * Pictures side by side: slides, people, and of those that never show anybody one that moves. In a picture of the size
 * of somebody else's, whoever was `seen` is somebody, however little like a face it looked.
 */
function tilesProposals(
  { tiles, frame, motion }: Structure,
  people: readonly SeenPerson[] | null,
  seen: readonly SeenPerson[] | null,
): RegionProposal[] {
  const others = tiles.filter((t) => people?.some((p) => shows(t, p)))
  const proposals = tiles.map((rect): RegionProposal => {
    const { restful, usual } = motion.within(rect)
    if (restful >= RESTFUL && areaOf(rect) > 0.2 * areaOf(frame))
      return { found: 'slides', role: 'slides', rect, confidence: 0.85 }
    if (people === null) return { found: 'tile', role: 'speaker', rect, confidence: 0.8 }
    if (people.some((p) => shows(rect, p))) return { found: 'tile', role: 'speaker', rect, confidence: 0.95 }
    const isAmongPeople = others.some((o) => isOfOneSize(o, rect))
    if (isAmongPeople && seen?.some((p) => shows(rect, p)))
      return { found: 'tile', role: 'speaker', rect, confidence: 0.75 }
    const confidence = isAmongPeople ? 0.5 : 0.6
    return { found: 'tile', role: 'game', rect, confidence: usual >= LIVE ? confidence : 0 }
  })
  const games = proposals.filter((p) => p.role === 'game')
  return proposals.filter((p) => p.role !== 'game' || (games.length === 1 && p.confidence > 0))
}

/** The whole of the content, by how it behaves beside an inset: slides rest, a game does not. */
function restOf({ frame, content, motion }: Structure, insets: readonly RegionProposal[]): RegionProposal[] {
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
  { content, stillness, lines, motion }: Structure,
  proposals: readonly RegionProposal[],
  insets: readonly RegionProposal[],
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

/** Whether what moves in `content` moves in `part` of it, and hardly anywhere else. */
function isMostlyWithin(content: Rect, part: Rect, motion: Motion): boolean {
  const inside = motion.within(part).usual * areaOf(part)
  const all = motion.within(content).usual * areaOf(content)
  return all > 0 && inside / all > 0.8
}
