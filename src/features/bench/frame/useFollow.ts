import { useSnackbar } from 'notistack'
import { useEffect } from 'react'
import { placePanels } from '@/core/compose/placePanels'
import { followPath, type FollowSample } from '@/core/detect/regions/follow'
import { subjectsOf } from '@/core/detect/regions/subjects'
import { centreOf, type Point } from '@/core/geometry/rect'
import type { Edit } from '@/core/model/edit'
import type { Region } from '@/core/model/region'
import { setPath } from '@/edit/regions'
import { partsOf, useBenchContext, useParts, useView, type PassageParts } from '../benchContext'
import { boundsByPassage, foundSamples, type Along } from '@/shared/looks/along'
import { wording } from './wording'

/** A crop moves across no more of the frame than this in a second. */
const MAX_PER_SECOND = 0.35
/** The subject may be this far from the middle of the crop before it moves, in shares of the crop's sides. */
const REACH = 0.16
/** Where a crop takes up nearly all of the region, it cannot move anyway. */
const MIN_REACH = 0.03

/**
 * Lets the crops of the region that is to follow do so through its passage, as soon as the highlight has been looked
 * along: a face where there is one, else what moves and draws the eye.
 */
export function useFollow(along: Along | null): void {
  const { session, view } = useBenchContext()
  const { enqueueSnackbar } = useSnackbar()
  const wanted = useView((v) => v.wantsFollow)
  const { setup } = useParts()
  const region = setup.regions.find((r) => r.id === wanted)
  useEffect(() => {
    if (!region || !along || along.state === 'looking') return
    if (along.state === 'stopped') return
    view.setState({ wantsFollow: null })
    if (along.state !== 'done') return
    const parts = partsOf(session.value, view.getState().passageId)
    const keys = followPath(samplesIn(parts, region, along), along.cuts, {
      reach: reachIn(session.value, parts, region),
      mostPerSecond: MAX_PER_SECOND,
    })
    if (keys.length === 0) enqueueSnackbar(wording.thereIsNothingInTo(region.name))
    else setPath(session, { passageId: parts.passage.id, region, keys })
  }, [region, along, session, view, enqueueSnackbar])
}

/** Where to aim at each moment of a passage that was seen. */
function samplesIn({ passage }: PassageParts, region: Region, along: Along): FollowSample[] {
  const { by, samples } = subjectsOf(foundSamples(along, region, boundsByPassage([passage], region)))
  const faces = new Map(by === 'face' ? samples.map((s) => [s.micros, s.subject && centreOf(s.subject)] as const) : [])
  return along.moments.flatMap((m) => {
    const at = by === 'face' ? (faces.get(m.outputMicros) ?? null) : (m.salient[region.id] ?? null)
    return m.seen && m.recordingMicros >= passage.inMicros && m.recordingMicros < passage.outMicros
      ? [{ micros: m.recordingMicros, at }]
      : []
  })
}

function reachIn(edit: Edit, { passage, recording: { video } }: PassageParts, { id }: Region): Point {
  const crops = edit.highlight.shapes.flatMap((shape) =>
    placePanels(edit, shape, passage).flatMap((p) => (p.region?.id === id && p.picture ? [p.picture.crop] : [])),
  )
  const least = (side: 'width' | 'height') =>
    Math.max(MIN_REACH, (REACH * Math.min(...crops.map((c) => c[side]), video[side])) / video[side])
  return { x: least('width'), y: least('height') }
}
