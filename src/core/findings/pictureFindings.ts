import { blowUp, panelPicture } from '../compose/panelCrop'
import { placePanels, type PlacedPanel } from '../compose/placePanels'
import { toEvenPixels } from '../geometry/evenGrid'
import { areaOf, intersection, scaleRect, type Rect } from '../geometry/rect'
import { recordingOf, type Edit } from '../model/edit'
import { correctionFor, type Correction } from '../model/passage'
import type { Shape } from '../model/shape'
import type { PlacedPassage } from '../time/timeMap'
import { clearOf } from './clearOf'
import type { Finding, Severity } from './finding'

/** Output pixels per recorded one from which softness can be seen, and from which it is plain. */
const SOFT = 1.5
const PLAINLY_SOFT = 2.5
/** Less of a face beside itself is taken for a sliver that nobody sees, px of area as a share of its region. */
const LEAST_TWICE = 0.02
const MUCH_TWICE = 0.25
const LEAST_CUT = 0.02
const MUCH_CUT = 0.25

/** Roles whose region is somebody's own picture: shown in another panel as well, it is there twice. */
const FACES: ReadonlySet<string> = new Set(['face', 'speaker', 'guest'])

const sharedPart = (a: Rect, b: Rect) => (intersection(a, b) ? areaOf(intersection(a, b) as Rect) / areaOf(a) : 0)

/** What is wrong with the pictures of a passage in a shape. */
export function pictureFindings(edit: Edit, shape: Shape, placed: PlacedPassage): Finding[] {
  const { passage, startMicros, endMicros } = placed
  const panels = placePanels(edit, shape, passage)
  return panels.flatMap((panel) => {
    const { picture, region } = panel
    if (!picture || !region) return []
    const about = (kind: string, severity: Severity): Pick<Finding, 'key' | 'severity' | 'shapeId' | 'passageId' | 'panelId' | 'fromMicros' | 'toMicros' | 'rect' | 'remedy'> => ({ key: `${kind} ${shape.id} ${passage.id} ${panel.panel.id}`, severity, shapeId: shape.id, passageId: passage.id, panelId: panel.panel.id, fromMicros: startMicros, toMicros: endMicros, rect: panel.rect, remedy: null })
    const { video } = recordingOf(edit, panel.source.recordingId)
    const role = panel.panel.role
    const findings: Finding[] = []
    const factor = blowUp(picture)
    if (factor > SOFT) findings.push({ ...about('blown-up', factor > PLAINLY_SOFT ? 'warn' : 'note'), fault: { kind: 'blown-up', role, factor } })
    const focus = region.focus && scaleRect(region.focus, video.width, video.height)
    const cut = focus && areaOf(focus) > 1 ? 1 - sharedPart(focus, picture.crop) : 0
    if (cut > LEAST_CUT) findings.push({ ...about('focus-cut', cut > MUCH_CUT ? 'warn' : 'note'), fault: { kind: 'focus-cut', role, share: cut } })
    for (const face of panels) {
      const twice = twiceIn(panel, face, edit)
      if (twice && twice.share > LEAST_TWICE) findings.push({ ...about(`shown-twice ${face.panel.id}`, twice.share > MUCH_TWICE ? 'warn' : 'note'), fault: { kind: 'shown-twice', role: face.panel.role, within: role, share: twice.share }, remedy: twice.remedy && { kind: 'move-crop', passageId: passage.id, correction: twice.remedy(correctionFor(panel.source.from, panel.panel.id, shape.id), shape.id) } })
    }
    const hidden = hiddenShare(panel, panels, focus)
    if (hidden > LEAST_CUT) findings.push({ ...about('hidden', hidden > MUCH_CUT ? 'warn' : 'note'), fault: { kind: 'hidden', role, share: hidden } })
    return findings
  })
}

/** How much of a face's own picture another panel shows as well, and the crop of that panel which would not. */
function twiceIn(panel: PlacedPanel, face: PlacedPanel, edit: Edit) {
  const { picture, region } = panel
  if (!picture || !region || !face.region || face.panel.id === panel.panel.id || !FACES.has(face.panel.role) || FACES.has(panel.panel.role)) return null
  if (face.source.recordingId !== panel.source.recordingId || face.source.feed || panel.source.feed) return null
  const { video } = recordingOf(edit, panel.source.recordingId)
  const own = toEvenPixels(face.region.bounds, video)
  const share = sharedPart(own, picture.crop)
  const clear = panel.panel.fit === 'fill' && share > 0 ? clearOf(picture.crop, toEvenPixels(region.bounds, video), own) : null
  const remedy = clear && ((known: Correction | undefined, shapeId: string): Correction => {
    const zoom = (known?.zoom ?? 1) * (picture.crop.width / clear.width)
    // A correction tells how far a crop is moved from where it would be with its zoom alone.
    const centred = panelPicture(panel.panel, panel.rect, region, video, { dx: 0, dy: 0, zoom }).crop
    return { panelId: panel.panel.id, shapeId, zoom, dx: (clear.x - centred.x) / video.width, dy: (clear.y - centred.y) / video.height }
  })
  return { share, remedy }
}

/** Share of what matters in a panel, or else of its middle, that lies under insets; canvas px. */
function hiddenShare({ picture, insetId, rect }: PlacedPanel, panels: readonly PlacedPanel[], focus: Rect | null): number {
  if (!picture || insetId !== null || !focus || areaOf(focus) <= 1) return 0
  const scale = picture.dest.width / picture.crop.width
  const onCanvas = { x: picture.dest.x + (focus.x - picture.crop.x) * scale, y: picture.dest.y + (focus.y - picture.crop.y) * scale, width: focus.width * scale, height: focus.height * scale }
  const seen = intersection(onCanvas, rect)
  if (!seen) return 0
  const under = panels.flatMap((p) => (p.insetId === null ? [] : [intersection(seen, p.rect)])).flatMap((r) => (r ? [areaOf(r)] : []))
  return Math.min(1, under.reduce((a, b) => a + b, 0) / areaOf(onCanvas))
}
