import type { Size } from '../geometry/rect'
import { recordingOf, type Edit } from '../model/edit'
import type { Shape } from '../model/shape'
import type { Passage } from '../model/passage'
import type { Micros } from '../time/micros'
import { onScreenAt, passageAt, pictureMicrosAt, type Playing, type TimeMap } from '../time/timeMap'
import { arrangementIn } from './arrangementIn'
import { backdropSteps } from './backdropSteps'
import type { Composition, Feed, PictureStep, Step } from './composition'
import { feedAt, feedMoment, laneOf } from './feeds'
import { allOf, joinSteps, type Drawn } from './joinSteps'
import { endCardSteps, markSteps } from './markSteps'
import { pictureOutline } from './pictureOutline'
import { placePanels, regionForRole } from './placePanels'
import { wordSteps } from './wordSteps'

/** One passage at a moment: where its recording is, and when that is in the output. */
interface Moment {
  passage: Passage
  recordingMicros: Micros
  t: Micros
  lane: string
}

/** What one passage's layout draws at a moment: what lies behind, and each panel by itself. */
function drawPassage(edit: Edit, map: TimeMap, shape: Shape, { passage, recordingMicros, t, lane }: Moment): Drawn {
  const { backdrop } = arrangementIn(edit, passage, shape)
  const feed = feedAt(edit, passage.recordingId, recordingMicros, lane)
  const placed = placePanels(edit, shape, passage, recordingMicros)
  const behind = backdropSteps(backdrop, sizeOf(shape), t, (role) => {
    const { video } = recordingOf(edit, passage.recordingId)
    const region = regionForRole(edit, passage, role, recordingMicros)
    const whole = placed.find(
      (p) => p.region?.id === region.id && p.source.feed === null && p.panel.fit === 'whole' && p.panel.turn === 0,
    )
    return { region, frame: video, feed, shownWhole: whole?.picture ?? null }
  })
  const panels = placed.flatMap(({ panel, rect, region, picture, source }) => {
    if (!picture || !region) return []
    const shown = feedMoment(edit, map, passage, source, recordingMicros, t) ?? feed
    const step: PictureStep = {
      kind: 'picture',
      panelId: panel.id,
      feed: shown,
      ...picture,
      orientation: { turn: panel.turn, flip: panel.flip },
      outline: pictureOutline(panel.outline ?? region.outline, picture.dest, shape),
      opacity: panel.opacity,
    }
    return [{ rect, step }]
  })
  return { behind, panels }
}

const sizeOf = ({ width, height }: Size): Size => ({ width, height })

/**
 * The frame shown when `passage` is at `recordingMicros`, which may lie beyond its cut points (to look at what a trim
 * would gain).
 */
export function composePassageAt(
  edit: Edit,
  map: TimeMap,
  shape: Shape,
  passage: Passage,
  recordingMicros: Micros,
): Composition {
  const start = map.passages.find((p) => p.passage.id === passage.id)?.startMicros ?? 0
  const t = start + Math.round(((recordingMicros - passage.inMicros) * 100) / passage.speedPercent)
  return {
    size: sizeOf(shape),
    steps: [
      ...allOf(drawPassage(edit, map, shape, { passage, recordingMicros, t, lane: laneOf(passage, 0) })),
      ...stepsOnTop(edit, map, shape, passage, t),
    ],
  }
}

/**
 * The frame of a highlight in a shape at output time `t`, or null outside the highlight. `map` is the edit's own time
 * map.
 */
export function compose(edit: Edit, map: TimeMap, shape: Shape, t: Micros): Composition | null {
  const shown = onScreenAt(map, t)
  if (!shown) return null
  const size = sizeOf(shape)
  const draw = ({ placed: { passage }, run, recordingMicros }: Playing) =>
    drawPassage(edit, map, shape, { passage, recordingMicros, t, lane: laneOf(passage, run) })
  const steps =
    shown.kind === 'one'
      ? allOf(draw(shown))
      : joinSteps(shown.join, shown.progress, draw(shown.from), draw(shown.to), size)
  const placed = passageAt(map, t)
  return { size, steps: placed ? [...steps, ...stepsOnTop(edit, map, shape, placed.passage, t)] : steps }
}

/** Marks and words stand still while pictures move. */
function stepsOnTop(edit: Edit, map: TimeMap, shape: Shape, passage: Passage, t: Micros): Step[] {
  return [
    ...markSteps(edit, map, shape, t),
    ...wordSteps(edit, map, shape, passage, t),
    ...endCardSteps(edit, map, shape, t),
  ]
}

/**
 * What comes on next after `t`: the first moment of the run that follows, with the output time at which it starts;
 * null when nothing does.
 */
export function nextFeed(map: TimeMap, t: Micros): { feed: Feed; startMicros: Micros } | null {
  for (const placed of map.passages)
    for (const [index, run] of placed.runs.entries()) {
      const join = index === 0 ? map.joins.find((j) => j.index === placed.index - 1) : undefined
      const startMicros = join?.fromMicros ?? run.startMicros
      if (startMicros <= t) continue
      return {
        startMicros,
        feed: {
          recordingId: placed.passage.recordingId,
          micros: Math.max(0, pictureMicrosAt({ ...placed, runs: [run] }, startMicros)),
          lane: laneOf(placed.passage, index),
        },
      }
    }
  return null
}
