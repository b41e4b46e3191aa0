import { toEvenPixels, toFractions } from '@/core/geometry/evenGrid'
import type { Rect } from '@/core/geometry/rect'
import type { Measurements } from '@/core/findings/findings'
import { recordingOf, setupOf, type Edit } from '@/core/model/edit'
import type { Recording } from '@/core/model/recording'
import type { Region } from '@/core/model/region'
import { lookAt, looks, tightened } from './looks'

/** A region and the recording that it is seen in. */
export interface SeenRegion {
  recording: Recording
  region: Region
}

/** Regions that somebody has set, with the recording they are seen in. */
export function regionsIn(edit: Edit): SeenRegion[] {
  const used = new Map(edit.highlight.passages.map((p) => [`${p.recordingId} ${p.setupId}`, p]))
  return [...used.values()].flatMap(({ recordingId, setupId }) => {
    const setup = setupOf(edit, setupId)
    const recording = recordingOf(edit, recordingId)
    return setup.isGuess
      ? []
      : setup.regions
          .filter((r) => r.outline.mask.kind === 'rectangle' && r.role !== 'whole')
          .map((region) => ({ recording, region }))
  })
}

/**
 * A region's bounds without border and black, fractions of the frame; the bounds themselves where there is neither.
 * The recording has been looked at.
 */
export async function tightBounds({ recording, region }: SeenRegion): Promise<Rect> {
  const pixels = toEvenPixels(region.bounds, recording.video)
  const tight = await tightened(recording.id, pixels)
  return tight ? toFractions(tight, recording.video) : region.bounds
}

/**
 * Bounds of all regions without border and black; recordings that nobody has looked at are looked at first. Those
 * that cannot be are left out.
 */
export async function edgesOf(edit: Edit, files: ReadonlyMap<string, Blob>): Promise<Measurements['edges']> {
  const edges = new Map<string, Rect>()
  for (const seen of regionsIn(edit)) {
    const { recording } = seen
    const file = files.get(recording.id)
    if (
      looks.getState()[recording.id]?.kind !== 'seen' &&
      (!file || !(await lookAt(recording, file, edit, 'in-passing')))
    )
      continue
    edges.set(seen.region.id, await tightBounds(seen))
  }
  return edges
}
