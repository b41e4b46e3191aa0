import { toEvenPixels, toFractions } from '@/core/geometry/evenGrid'
import type { Rect } from '@/core/geometry/rect'
import type { Measurements } from '@/core/findings/findings'
import { recordingOf, setupOf, type Edit } from '@/core/model/edit'
import type { Region } from '@/core/model/region'
import { lookAt, looks, sceneKey, tightened, type Scene } from './looks'

/** A region and the scene that it is seen in. */
export interface SeenRegion {
  scene: Scene
  region: Region
}

/** Regions that somebody has set, with the scene they are seen in. */
export function regionsIn(edit: Edit): SeenRegion[] {
  const used = new Map(edit.highlight.passages.map((p) => [`${p.recordingId} ${p.setupId}`, p]))
  return [...used.values()].flatMap(({ recordingId, setupId }) => {
    const setup = setupOf(edit, setupId)
    const recording = recordingOf(edit, recordingId)
    return setup.isGuess
      ? []
      : setup.regions
          .filter((r) => r.outline.mask.kind === 'rectangle' && r.role !== 'whole')
          .map((region) => ({ scene: { recording, setupId }, region }))
  })
}

/**
 * A region's bounds without border and black, fractions of the frame; the bounds themselves where there is neither.
 * The scene has been looked at.
 */
export async function tightBounds({ scene, region }: SeenRegion): Promise<Rect> {
  const { video } = scene.recording
  const tight = await tightened(scene, toEvenPixels(region.bounds, video))
  return tight ? toFractions(tight, video) : region.bounds
}

/**
 * Bounds of all regions without border and black; scenes that nobody has looked at are looked at first. Those
 * that cannot be are left out.
 */
export async function edgesOf(edit: Edit, files: ReadonlyMap<string, Blob>): Promise<Measurements['edges']> {
  const edges = new Map<string, Rect>()
  for (const seen of regionsIn(edit)) {
    const { scene } = seen
    const file = files.get(scene.recording.id)
    if (
      looks.getState()[sceneKey(scene)]?.kind !== 'seen' &&
      (!file || !(await lookAt(scene, file, edit, 'in-passing')))
    )
      continue
    edges.set(seen.region.id, await tightBounds(seen))
  }
  return edges
}
