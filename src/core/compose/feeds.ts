import { recordingOf, type Edit } from '../model/edit'
import type { RecordingId, SetupId } from '../model/ids'
import type { Passage, PanelFeed } from '../model/passage'
import { clampMicros, type Micros } from '../time/micros'
import { keptStretches, pictureMicrosAt, type TimeMap } from '../time/timeMap'
import type { Feed } from './composition'

/** A moment of a recording. Beyond its ends its first or last frame stands still. */
export function feedAt(edit: Edit, recordingId: RecordingId, micros: Micros, lane: string): Feed {
  return { recordingId, micros: clampMicros(micros, 0, recordingOf(edit, recordingId).durationMicros), lane }
}

/** Runs of a passage take turns between two lanes, so that the next can be made ready while this one plays. */
export function laneOf(passage: Passage, run: number): string {
  return `${passage.id} ${run % 2}`
}

/** What a panel of a passage shows: a recording, by a setup, with the corrections of `from`. */
export interface PanelSource {
  recordingId: RecordingId
  setupId: SetupId
  /** The passage whose shifts, paths and crops apply. */
  from: Passage
  /** What it plays instead of the passage itself; null for the passage. */
  feed: PanelFeed | null
}

/**
 * What plays in a panel: the passage, unless it has a feed of its own. A feed whose passage is gone counts for
 * nothing.
 */
export function sourceOfPanel({ highlight }: Edit, passage: Passage, panelId: PanelFeed['panelId']): PanelSource {
  const own = { recordingId: passage.recordingId, setupId: passage.setupId, from: passage, feed: null }
  const feed = passage.feeds.find((f) => f.panelId === panelId)
  if (!feed) return own
  const { plays } = feed
  if (plays.kind === 'recording') return { recordingId: plays.recordingId, setupId: plays.setupId, from: passage, feed }
  const other = highlight.passages.find((p) => p.id === plays.passageId)
  return other ? { recordingId: other.recordingId, setupId: other.setupId, from: other, feed } : own
}

/**
 * A panel's own run through a recording at a moment of the output: where it is (which may lie outside the recording),
 * and how fast it goes.
 */
export interface PanelPlay {
  recordingId: RecordingId
  micros: Micros
  speedPercent: number
  lane: string
}

/**
 * What a panel plays of its own while the passage's picture is at `recordingMicros`, output time `t`; null when it
 * shows the passage, or nothing.
 */
export function panelPlay(
  map: TimeMap,
  passage: Passage,
  { recordingId, from, feed }: PanelSource,
  recordingMicros: Micros,
  t: Micros,
): PanelPlay | null {
  if (!feed) return null
  const { plays } = feed
  if (plays.kind === 'passage') {
    const placed = map.passages.find((p) => p.passage.id === plays.passageId)
    // A shot that goes on stays on the lane that it is decoded on.
    return placed
      ? {
          recordingId,
          micros: pictureMicrosAt(placed, t),
          speedPercent: pictureSpeed(from),
          lane: laneOf(from, Math.max(0, keptStretches(from).length - 1)),
        }
      : null
  }
  const start = map.passages.find((p) => p.passage.id === passage.id)?.startMicros ?? 0
  const { clock } = plays
  const lane = `${passage.id} ${feed.panelId}`
  if (clock.kind === 'together')
    return { recordingId, micros: recordingMicros + clock.offsetMicros, speedPercent: pictureSpeed(passage), lane }
  return {
    recordingId,
    micros: clock.inMicros + Math.round(((t - start) * clock.speedPercent) / 100),
    speedPercent: clock.speedPercent,
    lane,
  }
}

/** How fast a passage's picture runs through its recording. */
export const pictureSpeed = ({ picture, speedPercent }: Pick<Passage, 'picture' | 'speedPercent'>): number =>
  picture?.speedPercent ?? speedPercent

/**
 * Where a panel's feed is while the passage's picture is at `recordingMicros`, output time `t`; null when it plays
 * nothing of its own.
 */
export function feedMoment(
  edit: Edit,
  map: TimeMap,
  passage: Passage,
  source: PanelSource,
  recordingMicros: Micros,
  t: Micros,
): Feed | null {
  const play = panelPlay(map, passage, source, recordingMicros, t)
  return play && feedAt(edit, play.recordingId, play.micros, play.lane)
}
