import { blowUp } from '../compose/panelCrop'
import type { PlacedPanel } from '../compose/placeArrangement'
import { placePanels } from '../compose/placePanels'
import { IS_THERE, legibility, MIN_LEGIBLE, showingOf, SOFT } from '../compose/showing'
import { toEvenPixels } from '../geometry/evenGrid'
import { areaOf, intersection, pushInside, scaleRect, type Rect, type Size } from '../geometry/rect'
import { recordingOf, setupOf, type Edit } from '../model/edit'
import { isRead, needsOf, type NeedKind } from '../layout/needs'
import { showsSomebody, toldApart, type Region } from '../model/region'
import { correctionFor, type Correction } from '../model/passage'
import type { Shape } from '../model/shape'
import type { Micros } from '../time/micros'
import type { PlacedPassage } from '../time/timeMap'
import { movedInsets, lowerBands } from './arrangements'
import { clearOf } from './clearOf'
import { isWorse, type FindingDraft, type Remedy, type Severity } from './finding'

/** Less of a face beside itself is taken for a sliver that nobody sees, px of area as a share of its region. */
const MIN_TWICE = 0.02
const MIN_CUT = 0.02
const MUCH_CUT = 0.25

/** Moments of a passage whose crops move at which they are looked at, besides its first. */
const MAX_MOMENTS = 12

const sharedPart = (a: Rect, b: Rect) => (intersection(a, b) ? areaOf(intersection(a, b) as Rect) / areaOf(a) : 0)

/**
 * What is wrong with the pictures of a passage in a shape, at its start; where its crops move, the worst of each
 * along it, at the moment when it is so.
 */
export function pictureFindings(edit: Edit, shape: Shape, placed: PlacedPassage): FindingDraft[] {
  const worst = new Map<string, FindingDraft>()
  for (const { recordingMicros, fromMicros } of momentsOf(placed)) {
    for (const found of findingsAt(edit, shape, placed, recordingMicros)) {
      const earlier = worst.get(found.key)
      if (
        !earlier ||
        isWorse(found.severity, earlier.severity) ||
        (found.severity === earlier.severity && amountOf(found) > amountOf(earlier))
      )
        worst.set(found.key, { ...found, fromMicros })
    }
  }
  return [...worst.values()]
}

const amountOf = ({ fault }: FindingDraft) => {
  if ('share' in fault) return fault.share
  return 'factor' in fault ? fault.factor : 0
}

/** Where crops are looked at: recording time, and when that is on the output clock. */
function momentsOf({ passage, runs, startMicros }: PlacedPassage): { recordingMicros: Micros; fromMicros: Micros }[] {
  const first = { recordingMicros: passage.inMicros, fromMicros: startMicros }
  const keys = [...new Set(passage.cropPaths.flatMap((p) => p.keys.map((k) => k.micros)))].sort((a, b) => a - b)
  if (keys.length === 0) return [first]
  const every = Math.max(1, Math.ceil(keys.length / MAX_MOMENTS))
  const others = keys
    .filter((_, i) => i % every === 0)
    .flatMap((micros) => {
      const run = runs.find((r) => micros >= r.inMicros && micros < r.outMicros)
      return run
        ? [
            {
              recordingMicros: micros,
              fromMicros: Math.round(run.startMicros + ((micros - run.inMicros) * 100) / passage.speedPercent),
            },
          ]
        : []
    })
  return [first, ...others]
}

function findingsAt(edit: Edit, shape: Shape, placed: PlacedPassage, recordingMicros: Micros): FindingDraft[] {
  const { passage, startMicros, endMicros } = placed
  const panels = placePanels(edit, shape, passage, recordingMicros)
  return panels.flatMap((panel) => {
    const { picture, region } = panel
    if (!picture || !region) return []
    const about = (kind: string, severity: Severity): Omit<FindingDraft, 'fault'> => ({
      key: `${kind} ${shape.id} ${passage.id} ${panel.panel.id}`,
      severity,
      shapeId: shape.id,
      passageId: passage.id,
      panelId: panel.panel.id,
      regionId: region.id,
      fromMicros: startMicros,
      toMicros: endMicros,
      rect: panel.rect,
      remedies: [],
    })
    const { video } = recordingOf(edit, panel.source.recordingId)
    const calledFor = ({ source, region: shown, panel: { role: asked } }: PlacedPanel) =>
      shown ? toldApart(setupOf(edit, source.setupId).regions, shown) : asked
    const role = calledFor(panel)
    const findings: FindingDraft[] = []
    const factor = blowUp(picture)
    if (factor > SOFT.seen)
      findings.push({
        ...about('blown-up', factor > SOFT.plain ? 'warn' : 'note'),
        fault: { kind: 'blown-up', role, factor },
        remedies: lowerBands(edit, shape, passage, panel.panel.id).map((arrangement): Remedy => ({
          kind: 'lower-band',
          layoutId: passage.layoutId,
          shapeId: shape.id,
          arrangement,
        })),
      })
    const wanted = mustBeSeen(panel, video)
    for (const { kind, rect } of wanted) {
      const cut = 1 - (showingOf(rect, panel, panels)?.held ?? 0)
      if (cut > MIN_CUT)
        findings.push({
          ...about(kind, cut > MUCH_CUT ? 'warn' : 'note'),
          fault: { kind, role, share: cut },
          remedies: holdInCrop(panel, rect, edit, shape.id),
        })
    }
    const letters = legibility(factor, video, shape)
    if (isRead(region.role) && letters < MIN_LEGIBLE)
      findings.push({ ...about('too-small', 'note'), fault: { kind: 'too-small', role, share: letters } })
    for (const face of panels) {
      const twice = twiceIn(panel, face, edit, shape.id)
      if (twice && twice.share > MIN_TWICE)
        findings.push({
          ...about(`shown-twice ${face.panel.id}`, twice.isHead ? 'warn' : 'note'),
          fault: { kind: 'shown-twice', role: calledFor(face), within: role, share: twice.share },
          remedies: twice.remedies,
        })
    }
    const hidden = Math.max(0, ...wanted.map(({ rect }) => hiddenShare(rect, panel, panels)))
    if (hidden > MIN_CUT)
      findings.push({
        ...about('hidden', hidden > MUCH_CUT ? 'warn' : 'note'),
        fault: { kind: 'hidden', role, share: hidden },
        remedies: movedInsets(edit, shape, passage),
      })
    return findings
  })
}

/** The correction that puts a panel's crop onto `wanted` (px of the frame, of the crop's own proportion). */
function correctionTo(
  wanted: Rect,
  { panel, region, picture, pictureWith, source }: PlacedPanel,
  edit: Edit,
  shapeId: string,
): Correction | null {
  if (!picture || !region) return null
  const { video } = recordingOf(edit, source.recordingId)
  const correction = correctionFor(source.from, panel.id, shapeId)
  const zoom = Math.max(1, (correction?.zoom ?? 1) * (picture.crop.width / wanted.width))
  // A correction tells how far a crop is moved from where it would be with its zoom alone.
  const centred = pictureWith({ dx: 0, dy: 0, zoom })?.crop
  if (!centred) return null
  const dx = (wanted.x + wanted.width / 2 - centred.x - centred.width / 2) / video.width
  const dy = (wanted.y + wanted.height / 2 - centred.y - centred.height / 2) / video.height
  return Math.abs(dx) <= 1 && Math.abs(dy) <= 1 && zoom <= 20 ? { panelId: panel.id, shapeId, zoom, dx, dy } : null
}

const moveCrop = (correction: Correction | null, { source }: PlacedPanel): Remedy[] =>
  correction ? [{ kind: 'move-crop', passageId: source.from.id, correction }] : []

/** The least move of a crop that holds `focus` (px of the frame), else the widest crop there is, moved onto it. */
function holdInCrop(panel: PlacedPanel, focus: Rect, edit: Edit, shapeId: string): Remedy[] {
  const {
    picture,
    region,
    panel: { fit },
  } = panel
  if (!picture || !region || fit !== 'fill') return []
  const bounds = toEvenPixels(region.bounds, recordingOf(edit, panel.source.recordingId).video)
  const along = (at: number, length: number, from: number, size: number) =>
    size >= length ? from + size / 2 - length / 2 : Math.min(Math.max(at, from + size - length), from)
  const over = (crop: Rect): Rect =>
    pushInside(
      {
        ...crop,
        x: along(crop.x, crop.width, focus.x, focus.width),
        y: along(crop.y, crop.height, focus.y, focus.height),
      },
      bounds,
    )
  const correction = correctionFor(panel.source.from, panel.panel.id, shapeId)
  const widest =
    (correction?.zoom ?? 1) > 1
      ? {
          ...picture.crop,
          width: picture.crop.width * (correction?.zoom ?? 1),
          height: picture.crop.height * (correction?.zoom ?? 1),
        }
      : null
  const options = [picture.crop, ...(widest ? [widest] : [])]
    .map(over)
    .filter((crop) => sharedPart(focus, crop) > sharedPart(focus, picture.crop) + 0.01)
  return options.flatMap((crop) => moveCrop(correctionTo(crop, panel, edit, shapeId), panel))
}

/**
 * How much of a face's own picture another panel shows as well, whether that is the head, and the crop of that panel
 * which would not.
 */
function twiceIn(
  panel: PlacedPanel,
  face: PlacedPanel,
  edit: Edit,
  shapeId: string,
): { share: number; isHead: boolean; remedies: Remedy[] } | null {
  const { picture, region } = panel
  if (
    !picture ||
    !region ||
    !face.region ||
    face.panel.id === panel.panel.id ||
    !showsSomebody(face.panel.role) ||
    showsSomebody(panel.panel.role)
  )
    return null
  if (face.source.recordingId !== panel.source.recordingId || face.source.feed || panel.source.feed) return null
  const { video } = recordingOf(edit, panel.source.recordingId)
  const own = toEvenPixels(face.region.bounds, video)
  const share = sharedPart(own, picture.crop)
  const clear =
    panel.panel.fit === 'fill' && share > 0 ? clearOf(picture.crop, toEvenPixels(region.bounds, video), own) : null
  const isHead = needsOf(face.region).some(
    ({ kind, rect }) =>
      kind === 'head' && sharedPart(scaleRect(rect, video.width, video.height), picture.crop) >= IS_THERE,
  )
  return { share, isHead, remedies: clear ? moveCrop(correctionTo(clear, panel, edit, shapeId), panel) : [] }
}

/**
 * What must be seen of a panel's region, px of the frame of size `video`, by the fault that it is when that is cut.
 * Where a head is only guessed at, nothing is known to be cut.
 */
function mustBeSeen({ region }: PlacedPanel, video: Size): { kind: CutKind; rect: Rect }[] {
  if (!region) return []
  return needsOf(region).flatMap(({ kind, rect, guessed }) => {
    const pixels = scaleRect(rect, video.width, video.height)
    // A path's aim is a point.
    if (kind === 'rest' || guessed || areaOf(pixels) <= 1) return []
    return [{ kind: cutKind(kind, region), rect: pixels }]
  })
}

type CutKind = 'focus-cut' | 'head-cut' | 'read-cut'

function cutKind(kind: NeedKind, { focus }: Region): CutKind {
  if (kind === 'read') return 'read-cut'
  return kind === 'head' && !focus ? 'head-cut' : 'focus-cut'
}

/** Share of a part of a panel's picture that lies under insets. */
function hiddenShare(part: Rect, panel: PlacedPanel, panels: readonly PlacedPanel[]): number {
  const showing = panel.insetId === null ? showingOf(part, panel, panels) : null
  return showing ? showing.held * showing.hidden : 0
}
