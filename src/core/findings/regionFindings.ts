import { placePanels } from '../compose/placePanels'
import { contains, intersection, scaleRect, type Rect } from '../geometry/rect'
import { recordingOf, setupOf, type Edit } from '../model/edit'
import { toldApart } from '../model/region'
import type { Shape } from '../model/shape'
import type { Micros } from '../time/micros'
import type { PlacedPassage } from '../time/timeMap'
import type { FindingDraft } from './finding'

/** What was seen in the recordings, by region of the setups. */
export interface RegionMeasurements {
  /** Bounds without border and black, fractions of the frame. */
  edges: ReadonlyMap<string, Rect>
  /**
   * When somebody is not inside, output time; `holding`: the least bounds that would hold them throughout, null where
   * that is not known.
   */
  presence: ReadonlyMap<string, { outside: readonly { fromMicros: Micros; toMicros: Micros }[]; holding: Rect | null }>
}

/** Less of a border than this, px of the recording, is the softness of scaling. */
const MIN_SLIVER = 1.5
const WIDE_SLIVER = 4

/**
 * Border and black along the edges of a passage's crops in a shape. A region that lies elsewhere in this passage was
 * not looked at there.
 */
export function sliverFindings(
  edit: Edit,
  shape: Shape,
  { passage, startMicros, endMicros }: PlacedPassage,
  { edges }: Pick<RegionMeasurements, 'edges'>,
): FindingDraft[] {
  return placePanels(edit, shape, passage).flatMap(({ picture, region, source, panel, rect }): FindingDraft[] => {
    const tight = region && edges.get(region.id)
    if (!picture || !tight || source.feed || passage.regionShifts.some((s) => s.regionId === region.id)) return []
    const { video } = recordingOf(edit, source.recordingId)
    const px = widestEdge(picture.crop, scaleRect(tight, video.width, video.height))
    if (px < MIN_SLIVER) return []
    return [
      {
        key: `sliver ${shape.id} ${passage.id} ${panel.id}`,
        severity: px >= WIDE_SLIVER ? 'warn' : 'note',
        fault: { kind: 'sliver', role: toldApart(setupOf(edit, source.setupId).regions, region), px: Math.round(px) },
        shapeId: shape.id,
        passageId: passage.id,
        panelId: panel.id,
        regionId: region.id,
        fromMicros: startMicros,
        toMicros: endMicros,
        rect,
        remedies: [{ kind: 'tighten-region', setupId: source.setupId, regionId: region.id, bounds: tight }],
      },
    ]
  })
}

/** How far a crop reaches beyond `tight`, px, at the side where it does most. */
function widestEdge(crop: Rect, tight: Rect): number {
  if (!intersection(crop, tight)) return 0
  return Math.max(
    0,
    tight.x - crop.x,
    tight.y - crop.y,
    crop.x + crop.width - tight.x - tight.width,
    crop.y + crop.height - tight.y - tight.height,
  )
}

/** Away for less of a passage than this is a turn of the head. */
const MIN_AWAY = 0.03
const MUCH_AWAY = 0.2

/** Somebody who is not always inside a region that a passage shows, whatever the shape. */
export function presenceFindings(
  edit: Edit,
  { passage, startMicros, endMicros }: PlacedPassage,
  { presence }: Pick<RegionMeasurements, 'presence'>,
): FindingDraft[] {
  const [shape] = edit.highlight.shapes
  if (!shape) return []
  const shown = placePanels(edit, shape, passage).filter(
    ({ region, picture, source }) => region && picture && !source.feed,
  )
  return [...new Map(shown.map((p) => [p.region?.id, p])).values()].flatMap(({ region, source }): FindingDraft[] => {
    const seen = region && presence.get(region.id)
    if (!seen) return []
    const times = seen.outside.flatMap(({ fromMicros, toMicros }) =>
      toMicros > startMicros && fromMicros < endMicros
        ? [{ fromMicros: Math.max(fromMicros, startMicros), toMicros: Math.min(toMicros, endMicros) }]
        : [],
    )
    const share = times.reduce((sum, t) => sum + t.toMicros - t.fromMicros, 0) / (endMicros - startMicros)
    const [first] = times
    if (!first || share < MIN_AWAY) return []
    const grows =
      seen.holding &&
      !contains(region.bounds, seen.holding) &&
      !passage.regionShifts.some((s) => s.regionId === region.id)
    return [
      {
        key: `leaves-region ${passage.id} ${region.id}`,
        severity: share > MUCH_AWAY ? 'warn' : 'note',
        fault: { kind: 'leaves-region', role: toldApart(setupOf(edit, source.setupId).regions, region), share },
        shapeId: null,
        passageId: passage.id,
        panelId: null,
        regionId: region.id,
        fromMicros: first.fromMicros,
        toMicros: times.at(-1)?.toMicros ?? endMicros,
        times,
        rect: null,
        remedies:
          grows && seen.holding
            ? [{ kind: 'grow-region', setupId: source.setupId, regionId: region.id, bounds: seen.holding }]
            : [],
      },
    ]
  })
}
