import { arrangementIn, isCrowded } from '../compose/arrangementIn'
import { shortHandles } from '../cut/handles'
import { panelsOf } from '../layout/tree'
import { DEFAULT_BACKDROP } from '../model/backdrop'
import { recordingOf, type Edit } from '../model/edit'
import type { Shape } from '../model/shape'
import type { PlacedPassage, TimeMap } from '../time/timeMap'
import { barePixels } from './arrangements'
import type { FindingDraft, Remedy } from './finding'

/** A bare part of the canvas that is smaller is a gap between bands. */
const MIN_BARE = 0.02
const MUCH_BARE = 0.15

/** What a finding says that is about all of a shape while a passage is on. */
const aboutShape = (kind: string, shape: Shape, { passage, startMicros, endMicros }: PlacedPassage) => ({
  key: `${kind} ${shape.id} ${passage.id}`,
  shapeId: shape.id,
  passageId: passage.id,
  panelId: null,
  fromMicros: startMicros,
  toMicros: endMicros,
  rect: null,
})

/** Parts of a shape where nothing was put and for which nobody chose what lies behind. */
export function bareFindings(edit: Edit, shape: Shape, placed: PlacedPassage): FindingDraft[] {
  const { passage } = placed
  const arrangement = arrangementIn(edit, passage, shape)
  const { backdrop } = arrangement
  if (backdrop.kind !== 'colour' || DEFAULT_BACKDROP.kind !== 'colour' || backdrop.colour !== DEFAULT_BACKDROP.colour)
    return []
  const px = barePixels(arrangement, shape)
  const share = px / (shape.width * shape.height)
  if (share < MIN_BARE) return []
  const role = panelsOf(arrangement).at(-1)?.role ?? 'whole'
  return [
    {
      ...aboutShape('uncovered', shape, placed),
      severity: share > MUCH_BARE ? 'warn' : 'note',
      fault: { kind: 'uncovered', px, share },
      remedies: [
        { kind: 'backdrop', layoutId: passage.layoutId, backdrop: { kind: 'blur', role, strength: 0.5, darken: 0.2 } },
      ],
    },
  ]
}

/** A shape of a layout that adapts in which words or marks have to lie on a face or on what is read. */
export function crowdedFindings(edit: Edit, shape: Shape, placed: PlacedPassage): FindingDraft[] {
  if (!isCrowded(edit, placed.passage, shape)) return []
  return [
    {
      ...aboutShape('no-clear-place', shape, placed),
      severity: 'warn',
      fault: { kind: 'no-clear-place' },
      remedies: [],
    },
  ]
}

/** Joins that need more from beyond a cut than their recordings have. */
export function handleFindings(edit: Edit, map: TimeMap): FindingDraft[] {
  return shortHandles(map, (p) => recordingOf(edit, p.recordingId)).flatMap(
    ({ index, side, missingFrames, slipMicros, joinMicros, speedPercent }): FindingDraft[] => {
      const [first, second] = [map.passages[index], map.passages[index + 1]]
      const join = map.joins.find((j) => j.index === index)
      const passage = side === 'after' ? first?.passage : second?.passage
      if (!first || !second || !join || !passage) return []
      const remedies: Remedy[] = [
        ...(slipMicros === null ? [] : [{ kind: 'slip' as const, passageId: passage.id, byMicros: slipMicros }]),
        ...(joinMicros > 0
          ? [{ kind: 'shorten-join' as const, passageId: first.passage.id, toMicros: joinMicros }]
          : []),
        ...(speedPercent === null ? [] : [{ kind: 'slow-down' as const, passageId: passage.id, speedPercent }]),
      ]
      return [
        {
          key: `handles-short ${first.passage.id} ${side}`,
          severity: 'warn',
          fault: { kind: 'handles-short', side, frames: missingFrames },
          shapeId: null,
          passageId: first.passage.id,
          panelId: null,
          fromMicros: join.fromMicros,
          toMicros: join.toMicros,
          rect: null,
          remedies,
        },
      ]
    },
  )
}

/** Files that what is shown or heard needs and that are not there. `missing`: ids of recordings and other files. */
export function missingFindings(
  { recordings, soundFiles, imageFiles, fontFiles }: Edit,
  map: TimeMap,
  missing: ReadonlySet<string>,
): FindingDraft[] {
  return [...recordings, ...soundFiles, ...imageFiles, ...fontFiles].flatMap(({ id, fileName }): FindingDraft[] => {
    if (!missing.has(id)) return []
    const where = map.passages.filter((p) => p.passage.recordingId === id)
    return [
      {
        key: `source-missing ${id}`,
        severity: 'stop',
        fault: { kind: 'source-missing', fileName },
        shapeId: null,
        passageId: where[0]?.passage.id ?? null,
        panelId: null,
        fromMicros: where[0]?.startMicros ?? 0,
        toMicros: where.at(-1)?.endMicros ?? map.lengthMicros,
        rect: null,
        remedies: [],
      },
    ]
  })
}
