import { arrangementFor } from '../layout/arrangementFor'
import type { Size } from '../geometry/rect'
import { layoutOf, recordingOf, type Edit } from '../model/edit'
import type { Shape } from '../model/shape'
import type { Passage } from '../model/passage'
import type { Micros } from '../time/micros'
import { keptStretches, onScreenAt, recordingMicrosAt, type Playing, type TimeMap } from '../time/timeMap'
import { backdropSteps } from './backdropSteps'
import type { Composition, Feed, PictureStep } from './composition'
import { feedAt } from './feeds'
import { allOf, joinSteps, type Drawn } from './joinSteps'
import { pictureOutline } from './pictureOutline'
import { placePanels, regionForRole } from './placePanels'

/** One passage at a moment: where its recording is, and how far it has run in the output. */
interface Moment {
  passage: Passage
  recordingMicros: Micros
  /** Since the passage's start on the output clock; negative while it comes in. */
  sinceStartMicros: Micros
  lane: string
}

/** What one passage's layout draws at a moment: what lies behind, and each panel by itself. */
function drawPassage(edit: Edit, shape: Shape, moment: Moment): Drawn {
  const { passage, recordingMicros, lane } = moment
  const canvas = sizeOf(shape)
  const { backdrop } = arrangementFor(layoutOf(edit, passage.layoutId), shape)
  const feed = feedAt(edit, passage.recordingId, recordingMicros, lane)
  const placed = placePanels(edit, shape, passage, recordingMicros)
  const behind = backdropSteps(backdrop, canvas, (role) => {
    const { video } = recordingOf(edit, passage.recordingId)
    const region = regionForRole(edit, passage, role, recordingMicros)
    const whole = placed.find((p) => p.region?.id === region.id && p.feed === null && p.panel.fit === 'whole' && p.panel.turn === 0)
    return { region, frame: video, feed, shownWhole: whole?.picture ?? null }
  })
  const panels = placed.flatMap(({ panel, rect, region, picture, feed: own }) => {
    if (!picture || !region) return []
    const shown = own ? feedAt(edit, own.recordingId, feedMicros(moment, own), laneOfFeed(edit, passage, own)) : feed
    const step: PictureStep = { kind: 'picture', panelId: panel.id, feed: shown, ...picture, orientation: { turn: panel.turn, flip: panel.flip }, outline: pictureOutline(panel.outline ?? region.outline, picture.dest, shape), opacity: panel.opacity }
    return [{ rect, step }]
  })
  return { behind, panels }
}

/** Where a panel's own feed is in its recording. */
function feedMicros({ recordingMicros, sinceStartMicros }: Pick<Moment, 'recordingMicros' | 'sinceStartMicros'>, { clock }: Passage['feeds'][number]): Micros {
  return clock.kind === 'together' ? recordingMicros + clock.offsetMicros : clock.inMicros + Math.round((sinceStartMicros * clock.speedPercent) / 100)
}

/** A shot that goes on in another passage stays on the lane it is decoded on. */
function laneOfFeed({ highlight }: Edit, passage: Passage, { panelId, continues }: Passage['feeds'][number]): string {
  const before = continues && highlight.passages.find((p) => p.id === continues)
  return before ? laneOf(before, keptStretches(before).length - 1) : `${passage.id} ${panelId}`
}

const sizeOf = ({ width, height }: Size): Size => ({ width, height })

/** The frame shown when `passage` is at `recordingMicros`, which may lie beyond its cut points (to look at what a trim would gain). */
export function composePassageAt(edit: Edit, shape: Shape, passage: Passage, recordingMicros: Micros): Composition {
  const sinceStartMicros = Math.round(((recordingMicros - passage.inMicros) * 100) / passage.speedPercent)
  return { size: sizeOf(shape), steps: allOf(drawPassage(edit, shape, { passage, recordingMicros, sinceStartMicros, lane: laneOf(passage, 0) })) }
}

/** The frame of a highlight in a shape at output time `t`, or null outside the highlight. `map` is the edit's own time map. */
export function compose(edit: Edit, map: TimeMap, shape: Shape, t: Micros): Composition | null {
  const shown = onScreenAt(map, t)
  if (!shown) return null
  const size = sizeOf(shape)
  const draw = ({ placed: { passage, startMicros }, run, recordingMicros }: Playing) => drawPassage(edit, shape, { passage, recordingMicros, sinceStartMicros: t - startMicros, lane: laneOf(passage, run) })
  if (shown.kind === 'one') return { size, steps: allOf(draw(shown)) }
  return { size, steps: joinSteps(shown.join, shown.progress, draw(shown.from), draw(shown.to), size) }
}

/** Runs of a passage take turns between two lanes, so that the next can be made ready while this one plays. */
export function laneOf(passage: Passage, run: number): string {
  return `${passage.id} ${run % 2}`
}

/** What comes on next after `t`: the first moment of the run that follows, with the output time at which it starts; null when nothing does. */
export function nextFeed(map: TimeMap, t: Micros): { feed: Feed; startMicros: Micros } | null {
  for (const placed of map.passages)
    for (const [index, run] of placed.runs.entries()) {
      const join = index === 0 ? map.joins.find((j) => j.index === placed.index - 1) : undefined
      const startMicros = join?.fromMicros ?? run.startMicros
      if (startMicros <= t) continue
      return { startMicros, feed: { recordingId: placed.passage.recordingId, micros: Math.max(0, recordingMicrosAt({ ...placed, runs: [run] }, startMicros)), lane: laneOf(placed.passage, index) } }
    }
  return null
}
