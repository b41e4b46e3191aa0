import type { Passage } from '../model/passage'
import { framesPerSecond } from '../time/frameRate'
import { MICROS_PER_SECOND, type Micros } from '../time/micros'
import { passageLength, type TimeMap } from '../time/timeMap'
import type { Footage } from './passages'

/** A join that needs more material beyond a cut than its recording has, with what would put it right. */
export interface ShortHandle {
  /** The join between passages `index` and `index + 1`. */
  index: number
  /** *after*: the first passage's recording ends too soon; *before*: the second one's starts too late. */
  side: 'after' | 'before'
  /** Frames of that recording that are missing. */
  missingFrames: number
  /** Slipping the passage by this much (recording time) gives enough, or null when the other end has no room for it. */
  slipMicros: Micros | null
  /** The longest join that what there is allows; 0 means a cut. */
  joinMicros: Micros
  /** The speed at which what there is lasts long enough, or null when that would be under 25 %. */
  speedPercent: number | null
}

/**
 * Every join of a *hold* highlight whose handles are too short. Overlapping joins use what lies inside the cuts and
 * need none.
 */
export function shortHandles(map: TimeMap, footageOf: (passage: Passage) => Footage): ShortHandle[] {
  return map.joins.flatMap(({ index, fromMicros, toMicros }) => {
    const before = map.passages[index]
    const after = map.passages[index + 1]
    if (!before || !after) return []
    const length = toMicros - fromMicros
    return [
      ...shortAfter(index, before.passage, toMicros - before.endMicros, length, footageOf(before.passage)),
      ...shortBefore(index, after.passage, after.startMicros - fromMicros, length, footageOf(after.passage)),
    ]
  })
}

function shortAfter(
  index: number,
  passage: Passage,
  neededOutput: Micros,
  joinMicros: Micros,
  footage: Footage,
): ShortHandle[] {
  const { picture } = passage
  const there =
    footage.durationMicros -
    (picture ? picture.inMicros + Math.round((passageLength(passage) * picture.speedPercent) / 100) : passage.outMicros)
  const otherRoom = passage.inMicros - footage.video.firstFrameMicros
  return shortOf({ index, side: 'after' }, passage, neededOutput, joinMicros, there, otherRoom, footage)
}

function shortBefore(
  index: number,
  passage: Passage,
  neededOutput: Micros,
  joinMicros: Micros,
  footage: Footage,
): ShortHandle[] {
  const there = (passage.picture ?? passage).inMicros - footage.video.firstFrameMicros
  const otherRoom = footage.durationMicros - passage.outMicros
  return shortOf({ index, side: 'before' }, passage, neededOutput, joinMicros, there, otherRoom, footage)
}

function shortOf(
  where: Pick<ShortHandle, 'index' | 'side'>,
  passage: Passage,
  neededOutput: Micros,
  joinMicros: Micros,
  there: Micros,
  otherRoom: Micros,
  { video }: Footage,
): ShortHandle[] {
  const needed = Math.round((neededOutput * (passage.picture ?? passage).speedPercent) / 100)
  const missing = needed - Math.max(0, there)
  const missingFrames = Math.ceil((missing * framesPerSecond(video.frameRate)) / MICROS_PER_SECOND - 1e-6)
  if (missingFrames <= 0) return []
  const slip = where.side === 'after' ? -missing : missing
  const speed = Math.floor((Math.max(0, there) * 100) / Math.max(1, neededOutput))
  return [
    {
      ...where,
      missingFrames,
      slipMicros: otherRoom >= missing ? slip : null,
      joinMicros: Math.floor((joinMicros * Math.max(0, there)) / needed),
      speedPercent: speed >= 25 ? speed : null,
    },
  ]
}
