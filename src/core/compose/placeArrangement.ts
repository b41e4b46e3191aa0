import { scaleRect } from '../geometry/rect'
import { needsOf } from '../layout/needs'
import { solve, type SolvedPanel } from '../layout/solve'
import { recordingOf, setupOf, type Edit } from '../model/edit'
import type { RegionId } from '../model/ids'
import type { Arrangement } from '../model/layout'
import { correctionFor, type Correction, type Passage } from '../model/passage'
import { newRegion, showsSomebody, WHOLE_FRAME, type Region, type Role } from '../model/region'
import type { Setup } from '../model/setup'
import type { Shape } from '../model/shape'
import type { Micros } from '../time/micros'
import type { SeenThing } from './cropForNeeds'
import { sourceOfPanel, type PanelSource } from './feeds'
import { panelPicture, type PanelPicture } from './panelCrop'
import { regionIn } from './regionIn'

type Crop = Pick<Correction, 'dx' | 'dy' | 'zoom'>

/**
 * A panel in a shape: where it lies, which region it shows as that lies in the passage, and the crop; no region when
 * the setup has none for its role. `source` is what plays in it.
 */
export interface PlacedPanel extends SolvedPanel {
  region: Region | null
  picture: PanelPicture | null
  source: PanelSource
  /** Whether its picture can be shifted and enlarged by hand. */
  canZoom: boolean
  /** The picture that another shift and zoom than the passage's would give. */
  pictureWith: (correction: Crop) => PanelPicture | null
}

/** What a panel for the whole picture shows where a setup says nothing else about it. */
export const WHOLE_REGION = newRegion('whole' as RegionId, 'whole', 'Whole', WHOLE_FRAME)

/**
 * Every panel of an arrangement in a shape, solved and cropped, at a recording time: crop paths move with it.
 * `adapts`: crops are made for what the regions show, else about their middles. Throws RangeError when the edit lacks
 * a record.
 */
export function placeArrangement(
  edit: Edit,
  arrangement: Arrangement,
  shape: Shape,
  passage: Passage,
  { recordingMicros = passage.inMicros, adapts }: { recordingMicros?: Micros; adapts: boolean },
): PlacedPanel[] {
  const seen = new Map<Role, number>()
  const found = solve(arrangement, shape).panels.map((solved) => {
    const { role, id } = solved.panel
    const source = sourceOfPanel(edit, passage, id)
    // A panel with a feed of its own shows the first region there; the others count among themselves.
    const n = source.feed ? 0 : (seen.get(role) ?? 0)
    if (!source.feed) seen.set(role, n + 1)
    const region = nthOfRole(setupOf(edit, source.setupId).regions, role, n)
    // A shot that goes on looks as it did: what was put right about it belongs to the passage that it comes from.
    return { solved, source, region: region && regionIn(source.from, region, recordingMicros) }
  })
  return found.map(({ solved, source, region }): PlacedPanel => {
    const { panel, rect } = solved
    const needs =
      adapts && region
        ? {
            // What follows a path is aimed by it.
            things: source.from.cropPaths.some((p) => p.regionId === region.id) ? [] : thingsIn(edit, source),
            elsewhere: new Set(
              found.flatMap((f) => (f.solved !== solved && sameFootage(f.source, source) ? (f.region?.id ?? []) : [])),
            ),
          }
        : undefined
    const { video } = recordingOf(edit, source.recordingId)
    const pictureWith = (correction?: Crop) =>
      region && panelPicture(panel, rect, region, video, { ...(correction && { correction }), ...(needs && { needs }) })
    return {
      ...solved,
      region,
      source,
      picture: pictureWith(correctionFor(source.from, panel.id, shape.id)),
      pictureWith,
      canZoom: adapts || panel.fit === 'fill',
    }
  })
}

/** Whether two panels show the same moments of the same recording. */
export const sameFootage = (a: PanelSource, b: PanelSource): boolean =>
  a.recordingId === b.recordingId && !a.feed && !b.feed

/** The `n`th region of a role, for the `n`th panel that asks for it; where there are fewer, the last. */
export function nthOfRole(regions: readonly Region[], role: Role, n: number): Region | null {
  const all = regions.filter((r) => r.role === role)
  return all[Math.min(n, all.length - 1)] ?? (role === 'whole' ? WHOLE_REGION : null)
}

const things = new WeakMap<Setup, WeakMap<Passage, Map<string, SeenThing[]>>>()

/**
 * Everything that a source's setup knows of its picture, px of the frame, where the source's passage has it. The same
 * for the same records: edits are never changed in place.
 */
export function thingsIn(edit: Edit, { recordingId, setupId, from }: PanelSource): readonly SeenThing[] {
  const setup = setupOf(edit, setupId)
  const inPassages = things.get(setup) ?? new WeakMap<Passage, Map<string, SeenThing[]>>()
  things.set(setup, inPassages)
  const inRecordings = inPassages.get(from) ?? new Map<string, SeenThing[]>()
  inPassages.set(from, inRecordings)
  const { width, height } = recordingOf(edit, recordingId).video
  const key = `${width} ${height}`
  const known = inRecordings.get(key)
  if (known) return known
  // A path says where crops are aimed, which is no place by itself.
  const moved = { ...from, cropPaths: [] }
  // Where nobody has said yet where anything is, nothing is known to be there.
  const regions = setup.isGuess ? [] : setup.regions
  const made = regions.flatMap((region) =>
    needsOf(regionIn(moved, region, 0)).map(({ kind, rect, guessed }) => ({
      kind,
      ...(guessed && { guessed }),
      rect: scaleRect(rect, width, height),
      regionId: region.id,
      ofPerson: showsSomebody(region.role),
    })),
  )
  inRecordings.set(key, made)
  return made
}
