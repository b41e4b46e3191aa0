import { layoutOf, setupOf, type Edit } from '../model/edit'
import type { Passage } from '../model/passage'
import type { Region, Role } from '../model/region'
import type { Shape } from '../model/shape'
import type { Micros } from '../time/micros'
import { arrangementIn } from './arrangementIn'
import { nthOfRole, placeArrangement, WHOLE_REGION, type PlacedPanel } from './placeArrangement'
import { regionIn } from './regionIn'

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
  const adapts = layoutOf(edit, passage.layoutId).adapts === true
  return placeArrangement(edit, arrangementIn(edit, passage, shape), shape, passage, { recordingMicros, adapts })
}

/** What a backdrop of a role is made from: the first region of it as it lies in the passage, else the whole picture. */
export function regionForRole(edit: Edit, passage: Passage, role: Role, recordingMicros: Micros): Region {
  const region = nthOfRole(setupOf(edit, passage.setupId).regions, role, 0)
  return region ? regionIn(passage, region, recordingMicros) : WHOLE_REGION
}
