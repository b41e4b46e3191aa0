import { changesOf, type ArrangementFault, type Candidate, type RoomWanted } from '../layout/arrangementChanges'
import { arrangementFor, derive } from '../layout/arrangementFor'
import { markRect } from '../layout/markRects'
import { wordArea } from '../layout/wordAreas'
import { layoutOf, recordingOf, setupOf, type Edit } from '../model/edit'
import type { Arrangement, Layout } from '../model/layout'
import type { Passage } from '../model/passage'
import { isHung, type HungMark } from '../model/pictureMark'
import type { Setup } from '../model/setup'
import type { Shape } from '../model/shape'
import { judgePictures, judgeWords, type Judgement, type PictureJudgement, type WordAreas } from './judgeArrangement'
import { placeArrangement } from './placeArrangement'

/** The arrangement that a shape has in a passage, and how good it is. */
export interface Answer extends Judgement {
  arrangement: Arrangement
}

/** So many changes are made one after the other, each the one that helps most. */
const MAX_CHANGES = 4
/** So many of the best are followed: one change alone may make worse what two together mend. */
const BEAM = 3

/** No other arrangement of the same panels has what these lack. */
const UNMENDABLE: readonly ArrangementFault[] = ['missing', 'repeats']

/** Marks that an arrangement is chosen for; more are put where there is room. */
const MAX_MARKS = 6

/** What a highlight lays over its pictures and leaves the place of to us. */
function roomWanted({ highlight: { words, marks }, imageFiles }: Edit, shape: Shape): RoomWanted {
  const hung = marks.filter(isHung)
  const rectsOf = (some: readonly HungMark[]) => some.slice(0, MAX_MARKS).map((m) => markRect(m, imageFiles, shape))
  return {
    title: words.titles.length > 0,
    captions: words.captions.shown && words.cues.length > 0,
    marks: rectsOf(hung.filter((m) => m.findsPlace)),
    fixed: rectsOf(hung.filter((m) => !m.findsPlace)),
  }
}

/**
 * How a passage's layout is arranged in a shape. A layout that adapts is changed, where what its regions show would be
 * cut, hidden, doubled, too small or written over, by the fewest changes that mend it; what somebody placed stays. The
 * same edit gives the same arrangement.
 */
export function arrangementIn(edit: Edit, passage: Passage, shape: Shape): Arrangement {
  const layout = layoutOf(edit, passage.layoutId)
  return layout.adapts ? answerIn(edit, passage, shape).arrangement : arrangementFor(layout, shape)
}

/** {@link arrangementIn} with how good it is and where words go; for a layout that adapts. */
export function answerIn(edit: Edit, passage: Passage, shape: Shape): Answer {
  const layout = layoutOf(edit, passage.layoutId)
  const wanted = roomWanted(edit, shape)
  const known = answers.get(layout) ?? []
  answers.set(layout, known)
  const records = recordsOf(edit, passage)
  const key = keyOf(passage, shape, wanted)
  const cached = known.find((k) => k.key === key && k.records.every((r, i) => r === records[i]))
  if (cached) return cached.answer
  const answer =
    passage.corrections.length === 0
      ? solveFor(edit, layout, passage, shape, wanted)
      : corrected(edit, passage, shape, wanted, answerIn(edit, { ...passage, corrections: [] }, shape).arrangement)
  known.unshift({ key, records, answer })
  known.splice(MAX_ANSWERS)
  return answer
}

/** Crops that somebody moved change nothing about an arrangement; words keep clear of what they show. */
function corrected(edit: Edit, passage: Passage, shape: Shape, wanted: RoomWanted, arrangement: Arrangement): Answer {
  const placed = placeArrangement(edit, arrangement, shape, passage, { adapts: true })
  return { ...judgeWords(shape, arrangement, judgePictures(edit, shape, arrangement, placed), wanted), arrangement }
}

/** Where the words of a highlight go in a shape while a passage is on, px of the canvas. */
export function wordAreasIn(edit: Edit, passage: Passage, shape: Shape): WordAreas {
  const layout = layoutOf(edit, passage.layoutId)
  if (layout.adapts) return answerIn(edit, passage, shape).areas
  const arrangement = arrangementFor(layout, shape)
  return {
    titleArea: wordArea('titleArea', arrangement, shape),
    captionArea: wordArea('captionArea', arrangement, shape),
  }
}

/** Whether words or marks have to lie, in a shape, on what they should not, for want of another place. */
export function isCrowded(edit: Edit, passage: Passage, shape: Shape): boolean {
  return layoutOf(edit, passage.layoutId).adapts === true && answerIn(edit, passage, shape).faults.has('words')
}

/** Answers that are kept for a layout: as many as there may be shapes and passages unlike each other on the screen. */
const MAX_ANSWERS = 48

interface CachedAnswer {
  key: string
  records: readonly object[]
  answer: Answer
}

const answers = new WeakMap<Layout, CachedAnswer[]>()

/** Everything outside the layout that an answer depends on, by identity: edits are never changed in place. */
function recordsOf(edit: Edit, passage: Passage): readonly object[] {
  const feeds = passage.feeds.flatMap(({ plays }) => (plays.kind === 'recording' ? [plays.setupId] : []))
  const others = passage.feeds.some(({ plays }) => plays.kind === 'passage') ? [edit.highlight.passages] : []
  const setups: Setup[] = [passage.setupId, ...feeds].map((id) => setupOf(edit, id))
  return [...setups, ...others, recordingOf(edit, passage.recordingId)]
}

function keyOf({ regionShifts, corrections, cropPaths, feeds }: Passage, shape: Shape, wanted: RoomWanted): string {
  const own = [regionShifts, corrections, feeds].some((o) => o.length > 0)
    ? JSON.stringify([regionShifts, corrections, feeds])
    : ''
  return `${shape.id} ${shape.width} ${shape.height} ${JSON.stringify(wanted)} ${cropPaths.map((p) => p.regionId).join()} ${own}`
}

function solveFor(edit: Edit, layout: Layout, passage: Passage, shape: Shape, wanted: RoomWanted): Answer {
  const own = layout.perShape[shape.id]
  const look = (candidate: Candidate): Looked => {
    const placed = placeArrangement(edit, candidate.arrangement, shape, passage, { adapts: true })
    return { candidate, pictures: judgePictures(edit, shape, candidate.arrangement, placed) }
  }
  const judge = ({ candidate, pictures }: Looked): Judged => {
    const judged = judgeWords(shape, candidate.arrangement, pictures, wanted)
    return { ...judged, ...candidate, cost: judged.cost + candidate.departure }
  }
  const first = judge(look({ arrangement: own ?? derive(layout.arrangement, shape), departure: 0 }))
  if (own || UNMENDABLE.some((f) => first.faults.has(f))) return first
  let best = first
  let beam = [first]
  for (let n = 0; n < MAX_CHANGES && best.faults.size > 0; n++) {
    const looked = distinct(
      beam.flatMap((from) => [...changesOf(from, { base: layout.arrangement, shape, wanted, faults: from.faults })]),
    ).map(look)
    // Words only ever cost more: those with the best pictures first, and no further than another could be better.
    looked.sort((a, b) => leastCost(a) - leastCost(b))
    const next: Judged[] = []
    for (const candidate of looked) {
      if (leastCost(candidate) >= (next[BEAM - 1]?.cost ?? Infinity)) break
      if (next[0]?.faults.size === 0 && leastCost(candidate) >= next[0].cost) break
      next.push(judge(candidate))
      next.sort((a, b) => a.cost - b.cost).splice(BEAM)
    }
    beam = next
    if (next[0] && next[0].cost < best.cost - 1e-9) best = next[0]
  }
  // What mends nothing is not worth a change.
  return best.faults.size < first.faults.size ? best : first
}

/** Each arrangement once: the same changes can be made in another order. */
function distinct(candidates: readonly Candidate[]): Candidate[] {
  return [...new Map(candidates.map((c) => [JSON.stringify(c.arrangement), c])).values()]
}

interface Looked {
  candidate: Candidate
  pictures: PictureJudgement
}

type Judged = Answer & Candidate

const leastCost = ({ candidate, pictures }: Looked): number => pictures.cost + candidate.departure
