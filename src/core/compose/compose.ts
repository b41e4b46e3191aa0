import { arrangementFor } from '../layout/arrangementFor'
import { solve } from '../layout/solve'
import type { Rect } from '../geometry/rect'
import { layoutOf, recordingOf, setupOf, type Edit } from '../model/edit'
import type { Panel } from '../model/layout'
import type { Passage } from '../model/passage'
import type { Region, Role } from '../model/region'
import type { Shape } from '../model/shape'
import { clampMicros, type Micros } from '../time/micros'
import { onScreenAt, recordingMicrosAt, type Playing, type TimeMap } from '../time/timeMap'
import type { Composition, Feed, Step } from './composition'
import { joinSteps } from './joinSteps'
import { panelPicture, type PanelPicture } from './panelCrop'
import { pictureOutline } from './pictureOutline'
import { regionIn } from './regionIn'

/** A panel in a shape: where it lies, which region it shows as that lies in the passage, and the crop; no region when the setup has none for its role. */
export interface PlacedPanel {
  panel: Panel
  rect: Rect
  region: Region | null
  picture: PanelPicture | null
}

/**
 * Every panel of a passage's layout in a shape, solved and cropped, at a recording time: crop paths move with it. Throws RangeError when the
 * edit lacks a record.
 */
export function placePanels(edit: Edit, shape: Shape, passage: Passage, recordingMicros: Micros = passage.inMicros): PlacedPanel[] {
  const { video } = recordingOf(edit, passage.recordingId)
  const { regions } = setupOf(edit, passage.setupId)
  const { panels } = solve(arrangementFor(layoutOf(edit, passage.layoutId), shape), shape)
  const seen = new Map<string, number>()
  return panels.map(({ panel, rect }) => {
    const n = seen.get(panel.role) ?? 0
    seen.set(panel.role, n + 1)
    const found = nthOfRole(regions, panel.role, n)
    const region = found && regionIn(passage, found, recordingMicros)
    const correction = passage.corrections.find((c) => c.panelId === panel.id)
    return { panel, rect, region, picture: region && panelPicture(panel, rect, region, video, correction) }
  })
}

/** The `n`th region of a role, for the `n`th panel that asks for it; where there are fewer, the last. */
function nthOfRole(regions: readonly Region[], role: Role, n: number): Region | null {
  const all = regions.filter((r) => r.role === role)
  return all[Math.min(n, all.length - 1)] ?? null
}

/** The steps of one passage's layout at a moment of its recording. Beyond the recording's ends its first or last frame stands still. */
function passageSteps(edit: Edit, shape: Shape, passage: Passage, recordingMicros: Micros, lane: string): Step[] {
  const { backdrop } = arrangementFor(layoutOf(edit, passage.layoutId), shape)
  const { durationMicros } = recordingOf(edit, passage.recordingId)
  const feed: Feed = { recordingId: passage.recordingId, micros: clampMicros(recordingMicros, 0, durationMicros), lane }
  const pictures = placePanels(edit, shape, passage, recordingMicros).flatMap(({ panel, region, picture }): Step[] => (picture && region ? [{ kind: 'picture', panelId: panel.id, feed, ...picture, outline: pictureOutline(region.outline, picture.dest, shape) }] : []))
  return [{ kind: 'backdrop', colour: backdrop.colour }, ...pictures]
}

/** The frame shown when `passage` is at `recordingMicros`, which may lie beyond its cut points (to look at what a trim would gain). */
export function composePassageAt(edit: Edit, shape: Shape, passage: Passage, recordingMicros: Micros): Composition {
  return { size: { width: shape.width, height: shape.height }, steps: passageSteps(edit, shape, passage, recordingMicros, laneOf(passage, 0)) }
}

/** The frame of a highlight in a shape at output time `t`, or null outside the highlight. `map` is the edit's own time map. */
export function compose(edit: Edit, map: TimeMap, shape: Shape, t: Micros): Composition | null {
  const shown = onScreenAt(map, t)
  if (!shown) return null
  const size = { width: shape.width, height: shape.height }
  const stepsOf = ({ placed: { passage }, run, recordingMicros }: Playing) => passageSteps(edit, shape, passage, recordingMicros, laneOf(passage, run))
  if (shown.kind === 'one') return { size, steps: stepsOf(shown) }
  return { size, steps: joinSteps(shown.join, shown.progress, stepsOf(shown.from), stepsOf(shown.to), size) }
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
