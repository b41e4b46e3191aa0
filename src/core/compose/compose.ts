import { arrangementFor } from '../layout/arrangementFor'
import { solve } from '../layout/solve'
import type { Rect } from '../geometry/rect'
import { layoutOf, recordingOf, setupOf, type Edit } from '../model/edit'
import type { Panel } from '../model/layout'
import type { Passage } from '../model/passage'
import type { Region } from '../model/region'
import type { Shape } from '../model/shape'
import { placePassages, toRecordingMicros } from '../time/timeMap'
import type { Micros } from '../time/micros'
import type { Composition, Step } from './composition'
import { panelPicture, type PanelPicture } from './panelCrop'

/** A panel in a shape: where it lies, which region it shows, and the crop; no region when the setup has none for its role. */
export interface PlacedPanel {
  panel: Panel
  rect: Rect
  region: Region | null
  picture: PanelPicture | null
}

/** Every panel of a passage's layout in a shape, solved and cropped. Throws RangeError when the edit lacks a record. */
export function placePanels(edit: Edit, shape: Shape, passage: Passage): PlacedPanel[] {
  const { video } = recordingOf(edit, passage.recordingId)
  const { regions } = setupOf(edit, passage.setupId)
  const { panels } = solve(arrangementFor(layoutOf(edit, passage.layoutId), shape), shape)
  return panels.map(({ panel, rect }) => {
    const region = regions.find((r) => r.role === panel.role) ?? null
    const correction = passage.corrections.find((c) => c.panelId === panel.id)
    return { panel, rect, region, picture: region && panelPicture(panel, rect, region, video, correction) }
  })
}

/** The frame shown when `passage` is at `recordingMicros`, which may lie beyond its cut points (to look at what a trim would gain). */
export function composePassageAt(edit: Edit, shape: Shape, passage: Passage, recordingMicros: Micros): Composition {
  const { backdrop } = arrangementFor(layoutOf(edit, passage.layoutId), shape)
  const steps: Step[] = [{ kind: 'backdrop', colour: backdrop.colour }]
  for (const { panel, picture } of placePanels(edit, shape, passage)) {
    if (!picture) continue
    steps.push({ kind: 'picture', panelId: panel.id, feed: { recordingId: passage.recordingId, micros: recordingMicros }, ...picture })
  }
  return { size: { width: shape.width, height: shape.height }, steps }
}

/** The frame of a highlight in a shape at output time `t`, or null outside the highlight. */
export function compose(edit: Edit, shape: Shape, t: Micros): Composition | null {
  const at = toRecordingMicros(placePassages(edit.highlight.passages), t)
  return at && composePassageAt(edit, shape, at.passage, at.recordingMicros)
}
