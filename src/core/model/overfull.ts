import type { Edit } from './edit'
import { MAX_BEDS, MAX_PASSAGES, MAX_SHAPES } from './highlight'
import { MAX_BANDS, MAX_INSETS, type Arrangement, type LayoutNode } from './layout'
import { MAX_CORRECTIONS, MAX_FEEDS, MAX_PATH_KEYS, MAX_PATHS, MAX_SHIFTS, MAX_STRIKES } from './passage'
import { MAX_MARKS } from './pictureMark'
import { MAX_REGIONS } from './setup'
import { MAX_CUES, MAX_SPEAKERS, MAX_TITLES } from './words'

/**
 * How many there may be of what a person can add to again and again: of bands in a stack, of regions in a setup, of
 * some in a passage, of the others in a highlight.
 */
export const MOST = {
  passages: MAX_PASSAGES,
  shapes: MAX_SHAPES,
  beds: MAX_BEDS,
  marks: MAX_MARKS,
  titles: MAX_TITLES,
  cues: MAX_CUES,
  speakers: MAX_SPEAKERS,
  regions: MAX_REGIONS,
  bands: MAX_BANDS,
  insets: MAX_INSETS,
  corrections: MAX_CORRECTIONS,
  feeds: MAX_FEEDS,
  strikes: MAX_STRIKES,
  shifts: MAX_SHIFTS,
  paths: MAX_PATHS,
  pathKeys: MAX_PATH_KEYS,
} as const

export type Limited = keyof typeof MOST

/**
 * What there are more of in an edit than can be stored; null: nothing. Looks at lengths alone, so that it can be
 * asked with every change.
 */
export function overfull({
  highlight,
  setups,
  layouts,
}: Pick<Edit, 'highlight' | 'setups' | 'layouts'>): Limited | null {
  const { passages, shapes, beds, marks, words } = highlight
  const arrangements = layouts.flatMap((l) => [l.arrangement, ...Object.values(l.perShape)])
  const most = (numbers: number[]) => numbers.reduce((a, b) => Math.max(a, b), 0)
  const counts: Record<Limited, number> = {
    passages: passages.length,
    shapes: shapes.length,
    beds: beds.length,
    marks: marks.length,
    titles: words.titles.length,
    cues: words.cues.length,
    speakers: words.speakers.length,
    regions: most(setups.map((s) => s.regions.length)),
    bands: most(arrangements.map(mostChildren)),
    insets: most(arrangements.map((a) => a.insets.length)),
    corrections: most(passages.map((p) => p.corrections.length)),
    feeds: most(passages.map((p) => p.feeds.length)),
    strikes: most(passages.map((p) => p.strikes.length)),
    shifts: most(passages.map((p) => p.regionShifts.length)),
    paths: most(passages.map((p) => p.cropPaths.length)),
    pathKeys: most(passages.flatMap((p) => p.cropPaths.map((c) => c.keys.length))),
  }
  return (Object.keys(MOST) as Limited[]).find((what) => counts[what] > MOST[what]) ?? null
}

function mostChildren({ tree }: Arrangement): number {
  const under = (node: LayoutNode): number =>
    node.kind === 'stack' ? Math.max(node.children.length, ...node.children.map((c) => under(c.node))) : 0
  return under(tree)
}
