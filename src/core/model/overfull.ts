import type { Edit } from './edit'
import { MOST_BEDS, MOST_PASSAGES, MOST_SHAPES } from './highlight'
import { MOST_BANDS, MOST_INSETS, type Arrangement, type LayoutNode } from './layout'
import { MOST_CORRECTIONS, MOST_FEEDS, MOST_PATH_KEYS, MOST_PATHS, MOST_SHIFTS, MOST_STRIKES } from './passage'
import { MOST_MARKS } from './pictureMark'
import { MOST_REGIONS } from './setup'
import { MOST_CUES, MOST_SPEAKERS, MOST_TITLES } from './words'

/** How many there may be of what a person can add to again and again: of bands in a stack, of regions in a setup, of some in a passage, of the others in a highlight. */
export const MOST = {
  passages: MOST_PASSAGES,
  shapes: MOST_SHAPES,
  beds: MOST_BEDS,
  marks: MOST_MARKS,
  titles: MOST_TITLES,
  cues: MOST_CUES,
  speakers: MOST_SPEAKERS,
  regions: MOST_REGIONS,
  bands: MOST_BANDS,
  insets: MOST_INSETS,
  corrections: MOST_CORRECTIONS,
  feeds: MOST_FEEDS,
  strikes: MOST_STRIKES,
  shifts: MOST_SHIFTS,
  paths: MOST_PATHS,
  pathKeys: MOST_PATH_KEYS,
} as const

export type Limited = keyof typeof MOST

/** What there are more of in an edit than can be stored; null: nothing. Looks at lengths alone, so that it can be asked with every change. */
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
