import { placePanels } from '../compose/placePanels'
import { titlesAt } from '../compose/wordSteps'
import { areaOf, intersection, scaleRect, type Rect } from '../geometry/rect'
import { arrangementFor } from '../layout/arrangementFor'
import { wordArea } from '../layout/wordAreas'
import { layoutOf, type Edit } from '../model/edit'
import type { Outlet } from '../model/outlet'
import type { Shape } from '../model/shape'
import { AUDIO_BITRATE, settingsFor } from '../output/renderSettings'
import { MICROS_PER_SECOND } from '../time/micros'
import type { PlacedPassage, TimeMap } from '../time/timeMap'
import type { Finding } from './finding'

/** Less under a feed's own things is not in anybody's way. */
const LEAST_UNDER = 0.05
const MUCH_UNDER = 0.25

const WITH_SOMEBODY: ReadonlySet<string> = new Set(['face', 'speaker', 'guest'])

const isFor = (outlet: Outlet, { width, height }: Shape) => Math.abs(outlet.shape.width / outlet.shape.height - width / height) < 0.01

/** What is wrong with a passage in a shape by what an outlet lays over it: faces, titles and captions under its own things. */
export function controlFindings(edit: Edit, shape: Shape, placed: PlacedPassage, outlet: Outlet): Finding[] {
  if (!isFor(outlet, shape)) return []
  const { passage, startMicros, endMicros } = placed
  const zones = outlet.zones.map((z) => ({ name: z.name, rect: scaleRect(z.rect, shape.width, shape.height) }))
  const { words } = edit.highlight
  const arrangement = arrangementFor(layoutOf(edit, passage.layoutId), shape)
  const things: { what: string; rect: Rect }[] = [
    ...placePanels(edit, shape, passage).flatMap(({ panel, rect, picture }) => (picture && WITH_SOMEBODY.has(panel.role) ? [{ what: panel.role, rect: middleOf(rect) }] : [])),
    ...(titlesAt(words, startMicros, Number.MAX_SAFE_INTEGER).length > 0 ? [{ what: 'title', rect: wordArea('titleArea', arrangement, shape) }] : []),
    ...(words.captions.shown && words.cues.some((c) => c.recordingId === passage.recordingId && c.text.trim() !== '') ? [{ what: 'captions', rect: wordArea('captionArea', arrangement, shape) }] : []),
  ]
  return things.flatMap(({ what, rect }) =>
    zones.flatMap((zone): Finding[] => {
      const shared = intersection(rect, zone.rect)
      const share = shared ? areaOf(shared) / areaOf(rect) : 0
      if (share < LEAST_UNDER) return []
      return [{ key: `under-controls ${shape.id} ${passage.id} ${what} ${zone.name}`, severity: share > MUCH_UNDER ? 'warn' : 'note', fault: { kind: 'under-controls', what, zone: zone.name, share }, shapeId: shape.id, passageId: passage.id, panelId: null, fromMicros: startMicros, toMicros: endMicros, rect: shared, remedy: null }]
    }),
  )
}

/** Where a face is, by and large: the middle of its panel. */
function middleOf({ x, y, width, height }: Rect): Rect {
  return { x: x + width * 0.2, y: y + height * 0.1, width: width * 0.6, height: height * 0.8 }
}

/** What is wrong with a highlight by an outlet's limits. */
export function limitFindings(edit: Edit, shape: Shape, map: TimeMap, outlet: Outlet): Finding[] {
  if (!isFor(outlet, shape)) return []
  const [first] = edit.highlight.passages
  const recording = edit.recordings.find((r) => r.id === first?.recordingId)
  const whole = { shapeId: shape.id, passageId: null, panelId: null, rect: null }
  const findings: Finding[] = []
  const over = map.lengthMicros - (outlet.longestMicros ?? Infinity)
  if (over > 0) findings.push({ ...whole, key: `too-long ${shape.id}`, severity: 'stop', fault: { kind: 'too-long', overMicros: over }, fromMicros: map.lengthMicros - over, toMicros: map.lengthMicros, remedy: null })
  if (recording && outlet.largestBytes !== null) {
    const { output } = edit.highlight
    const bytes = (quality: typeof output.quality) => ((settingsFor({ ...output, quality }, shape, recording).videoBitrate + AUDIO_BITRATE) * map.lengthMicros) / MICROS_PER_SECOND / 8
    const tooMany = bytes(output.quality) - outlet.largestBytes
    if (tooMany > 0) findings.push({ ...whole, key: `too-big ${shape.id}`, severity: 'stop', fault: { kind: 'too-big', overBytes: Math.round(tooMany) }, fromMicros: 0, toMicros: map.lengthMicros, remedy: output.quality !== 'small' && bytes('small') <= outlet.largestBytes ? { kind: 'smaller-file' } : null })
  }
  return findings
}
