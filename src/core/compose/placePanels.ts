import { arrangementFor } from '../layout/arrangementFor'
import { solve, type SolvedPanel } from '../layout/solve'
import { layoutOf, recordingOf, setupOf, type Edit } from '../model/edit'
import type { RegionId } from '../model/ids'
import { correctionFor, type Passage } from '../model/passage'
import { newRegion, WHOLE_FRAME, type Region, type Role } from '../model/region'
import type { Shape } from '../model/shape'
import type { Micros } from '../time/micros'
import { sourceOfPanel, type PanelSource } from './feeds'
import { panelPicture, type PanelPicture } from './panelCrop'
import { regionIn } from './regionIn'

/**
 * A panel in a shape: where it lies, which region it shows as that lies in the passage, and the crop; no region when
 * the setup has none for its role. `source` is what plays in it.
 */
export interface PlacedPanel extends SolvedPanel {
  region: Region | null
  picture: PanelPicture | null
  source: PanelSource
}

/** What a panel for the whole picture shows where a setup says nothing else about it. */
const WHOLE_REGION = newRegion('whole' as RegionId, 'whole', 'Whole', WHOLE_FRAME)

/**
 * Every panel of a passage's layout in a shape, solved and cropped, at a recording time: crop paths move with it.
 * Throws RangeError when the edit lacks a record.
 */
export function placePanels(
  edit: Edit,
  shape: Shape,
  passage: Passage,
  recordingMicros: Micros = passage.inMicros,
): PlacedPanel[] {
  const { panels } = solve(arrangementFor(layoutOf(edit, passage.layoutId), shape), shape)
  const seen = new Map<Role, number>()
  return panels.map((solved) => {
    const { panel } = solved
    const source = sourceOfPanel(edit, passage, panel.id)
    const { recordingId, setupId, from, feed } = source
    // A panel with a feed of its own shows the first region there; the others count among themselves.
    const n = feed ? 0 : (seen.get(panel.role) ?? 0)
    if (!feed) seen.set(panel.role, n + 1)
    const found = nthOfRole(setupOf(edit, setupId).regions, panel.role, n)
    // A shot that goes on looks as it did: what was put right about it belongs to the passage that it comes from.
    const region = found && regionIn(from, found, recordingMicros)
    const correction = correctionFor(from, panel.id, shape.id)
    return {
      ...solved,
      region,
      source,
      picture: region && panelPicture(panel, solved.rect, region, recordingOf(edit, recordingId).video, correction),
    }
  })
}

/** The `n`th region of a role, for the `n`th panel that asks for it; where there are fewer, the last. */
function nthOfRole(regions: readonly Region[], role: Role, n: number): Region | null {
  const all = regions.filter((r) => r.role === role)
  return all[Math.min(n, all.length - 1)] ?? (role === 'whole' ? WHOLE_REGION : null)
}

/** What a backdrop of a role is made from: the first region of it as it lies in the passage, else the whole picture. */
export function regionForRole(edit: Edit, passage: Passage, role: Role, recordingMicros: Micros): Region {
  const region = nthOfRole(setupOf(edit, passage.setupId).regions, role, 0)
  return region ? regionIn(passage, region, recordingMicros) : WHOLE_REGION
}
