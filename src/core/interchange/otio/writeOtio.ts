import { panelRuns, standsStill, type PanelRun } from '../../compose/panelRuns'
import { cuesOf } from '../../compose/wordSteps'
import { recordingOf, type Edit } from '../../model/edit'
import type { Join } from '../../model/join'
import { recordingFeeds, type Passage, type RecordingFeed } from '../../model/passage'
import type { Recording } from '../../model/recording'
import type { Shape } from '../../model/shape'
import { framesPerSecond } from '../../time/frameRate'
import { MICROS_PER_SECOND, type Micros } from '../../time/micros'
import { timeMapOf, type PlacedPassage, type Run, type TimeMap } from '../../time/timeMap'
import type { Child, Clip, Marker, RationalTime, TimeRange, Timeline, Track } from './otioSchema'

/** Transitions that general tools know by this name; others carry ours in their metadata. */
const DISSOLVE = 'SMPTE_Dissolve'
const CUSTOM = 'Custom_Transition'

/**
 * A highlight as an OpenTimelineIO timeline: a video track for each panel of a shape, the first the lowest, with what
 * the panel plays; audio tracks; joins as transitions, titles and captions as markers. All lengths are whole frames
 * of the timeline's rate, starts whole frames of the recording's own. What a timeline cannot say is told in its
 * metadata under `brimble`, where the whole edit is too, so that reading it back loses nothing.
 */
export function writeOtio(edit: Edit, shape: Shape): string {
  const map = timeMapOf(edit.highlight)
  const rate = rateOf(edit, map)
  const most = Math.max(
    1,
    ...map.passages.flatMap((p) => partsOf(map, p).map((run) => panelRuns(edit, map, shape, p, run).length)),
  )
  const along = (childrenOf: (placed: PlacedPassage) => Child[]) =>
    map.passages.flatMap((placed) => [...childrenOf(placed), ...transitionAfter(map, placed, rate)])
  const video = Array.from({ length: most }, (_, n) =>
    trackOf(
      'Video',
      nameOfPanel(edit, map, shape, n),
      along((p) => panelClips(edit, map, shape, p, n, rate)),
    ),
  )
  const heard = map.passages.some(({ passage }) => heardFeed(passage))
    ? [
        trackOf(
          'Audio',
          'Sound of panels',
          along((p) => heardClips(edit, map, p, rate)),
        ),
      ]
    : []
  const timeline: Timeline = {
    OTIO_SCHEMA: 'Timeline.1',
    name: edit.highlight.name,
    metadata: { brimble: { version: 1, shape, edit, notKept: notKeptInOtio(edit, shape) } },
    global_start_time: null,
    tracks: {
      OTIO_SCHEMA: 'Stack.1',
      name: 'tracks',
      metadata: {},
      source_range: null,
      effects: [],
      markers: markersOf(edit, map, rate),
      enabled: true,
      children: [
        ...video,
        trackOf(
          'Audio',
          'Sound',
          along((p) => soundClips(edit, map, p, rate)),
        ),
        ...heard,
      ],
    },
  }
  return `${JSON.stringify(timeline, null, 1)}\n`
}

/** What of a highlight a timeline cannot say, in words. */
export function notKeptInOtio(edit: Edit, shape: Shape): string[] {
  const { highlight } = edit
  const map = timeMapOf(highlight)
  const runs = map.passages.flatMap((p) =>
    partsOf(map, p).flatMap((run) => panelRuns(edit, map, shape, p, run).map((panel) => standsStill(edit, panel, run))),
  )
  const notes = ['Where panels lie and what they show of their recordings is in the metadata alone.']
  if (map.joins.some((j) => j.join.kind !== 'dissolve'))
    notes.push('Joins other than dissolves are transitions of a kind that other tools do not know.')
  if (highlight.beds.length > 0) notes.push('Music and voices underneath are left out.')
  if (highlight.marks.length > 0) notes.push('Marks and end cards over the picture are left out.')
  if (highlight.words.titles.length > 0 || highlight.words.cues.length > 0)
    notes.push('Titles and captions are markers, without their looks.')
  if (highlight.passages.some(({ sound }) => sound.fadeInMicros > 0 || sound.fadeOutMicros > 0 || sound.gainDb !== 0))
    notes.push('Levels and fades of sound are in the metadata alone.')
  if (runs.includes(true))
    notes.push(
      'Where a recording does not reach as far as its panel, a frame stands still; the timeline has the recording go on.',
    )
  return notes
}

/** All times are counted at the first recording's rate. */
function rateOf(edit: Edit, map: TimeMap): number {
  const first = map.passages[0]
  return first ? recordingRate(recordingOf(edit, first.passage.recordingId)) : 30
}

const recordingRate = ({ video }: Recording): number => framesPerSecond(video.frameRate)

/** A time as the whole number of frames nearest to it. */
const toFrames = (t: Micros, rate: number): RationalTime => ({
  OTIO_SCHEMA: 'RationalTime.1',
  rate,
  value: Math.round((t * rate) / MICROS_PER_SECOND),
})

/** The whole frames between two output times: as many as between the frames nearest to them, so that lengths add up. */
function framesBetween(from: Micros, to: Micros, rate: number): RationalTime {
  return { OTIO_SCHEMA: 'RationalTime.1', rate, value: toFrames(to, rate).value - toFrames(from, rate).value }
}

const rangeOf = (from: Micros, to: Micros, rate: number): TimeRange => ({
  OTIO_SCHEMA: 'TimeRange.1',
  start_time: toFrames(from, rate),
  duration: framesBetween(from, to, rate),
})

function trackOf(kind: 'Video' | 'Audio', name: string, children: Child[]): Track {
  return {
    OTIO_SCHEMA: 'Track.1',
    name,
    metadata: {},
    source_range: null,
    effects: [],
    markers: [],
    enabled: true,
    kind,
    children,
  }
}

/**
 * A passage's runs as they lie on a track, where clips follow each other and a join lies half on either side of its
 * cut: where passages overlap, the cut is the middle.
 */
function partsOf(map: TimeMap, { index, runs, startMicros, endMicros }: PlacedPassage): Run[] {
  const middle = (n: number) =>
    map.joins.find(
      (j) =>
        j.index === n &&
        map.passages[n] &&
        map.passages[n + 1] &&
        (map.passages[n + 1] as PlacedPassage).startMicros < (map.passages[n] as PlacedPassage).endMicros,
    )
  const [before, after] = [middle(index - 1), middle(index)]
  const from = before ? Math.round((before.fromMicros + before.toMicros) / 2) : startMicros
  const to = after ? Math.round((after.fromMicros + after.toMicros) / 2) : endMicros
  return runs.flatMap((run) => {
    const [start, end] = [Math.max(run.startMicros, from), Math.min(run.endMicros, to)]
    if (end <= start) return []
    const speed = (run.outMicros - run.inMicros) / (run.endMicros - run.startMicros)
    return [
      {
        inMicros: run.inMicros + Math.round((start - run.startMicros) * speed),
        outMicros: run.outMicros - Math.round((run.endMicros - end) * speed),
        startMicros: start,
        endMicros: end,
      },
    ]
  })
}

function nameOfPanel(edit: Edit, map: TimeMap, shape: Shape, n: number): string {
  for (const placed of map.passages)
    for (const run of partsOf(map, placed)) {
      const panel = panelRuns(edit, map, shape, placed, run)[n]
      if (panel) return `Panel ${n + 1}, ${Math.round(panel.step.dest.width)} × ${Math.round(panel.step.dest.height)}`
    }
  return `Panel ${n + 1}`
}

/** What the `n`th panel plays, a clip for each run; a gap where the passage has fewer panels. */
function panelClips(edit: Edit, map: TimeMap, shape: Shape, placed: PlacedPassage, n: number, rate: number): Child[] {
  return partsOf(map, placed).map((run): Child => {
    const panel = panelRuns(edit, map, shape, placed, run)[n]
    if (!panel) return gapFor(run, rate)
    const { step } = panel
    return clipOf(edit, panel, run, rate, {
      passageId: placed.passage.id,
      shape: shape.id,
      panelId: step.panelId,
      crop: step.crop,
      place: step.dest,
      turn: step.orientation.turn,
      flip: step.orientation.flip,
    })
  })
}

function soundClips(edit: Edit, map: TimeMap, placed: PlacedPassage, rate: number): Child[] {
  const { passage } = placed
  const { recordingId, speedPercent, sound } = passage
  return partsOf(map, placed).map((run): Child => {
    if (!recordingOf(edit, recordingId).sound || sound.muted) return gapFor(run, rate)
    return clipOf(edit, { recordingId, inMicros: run.inMicros, speedPercent }, run, rate, {
      passageId: passage.id,
      gainDb: sound.gainDb,
    })
  })
}

/** The recording whose sound is heard beside a passage's own. */
function heardFeed(passage: Passage): RecordingFeed | undefined {
  return recordingFeeds(passage).find((f) => f.heard)
}

function heardClips(edit: Edit, map: TimeMap, placed: PlacedPassage, rate: number): Child[] {
  const { passage, startMicros } = placed
  const feed = heardFeed(passage)
  return partsOf(map, placed).map((run): Child => {
    if (!feed || !recordingOf(edit, feed.recordingId).sound) return gapFor(run, rate)
    const { clock } = feed
    const plays =
      clock.kind === 'together'
        ? { inMicros: run.inMicros + clock.offsetMicros, speedPercent: passage.speedPercent }
        : {
            inMicros: clock.inMicros + Math.round(((run.startMicros - startMicros) * clock.speedPercent) / 100),
            speedPercent: clock.speedPercent,
          }
    return clipOf(edit, { recordingId: feed.recordingId, ...plays }, run, rate, { passageId: passage.id })
  })
}

const gapFor = ({ startMicros, endMicros }: Run, rate: number): Child => ({
  OTIO_SCHEMA: 'Gap.1',
  name: '',
  metadata: {},
  source_range: {
    OTIO_SCHEMA: 'TimeRange.1',
    start_time: toFrames(0, rate),
    duration: framesBetween(startMicros, endMicros, rate),
  },
  effects: [],
  markers: [],
  enabled: true,
})

/**
 * A clip as long as it lasts in the output; how fast it runs through the recording is an effect. It starts on a frame
 * of the recording, none before its first.
 */
function clipOf(
  edit: Edit,
  { recordingId, inMicros, speedPercent }: Pick<PanelRun, 'recordingId' | 'inMicros' | 'speedPercent'>,
  { startMicros, endMicros }: Run,
  rate: number,
  data: Record<string, unknown>,
): Clip {
  const recording = recordingOf(edit, recordingId)
  return {
    OTIO_SCHEMA: 'Clip.2',
    name: recording.name,
    metadata: { brimble: data },
    source_range: {
      OTIO_SCHEMA: 'TimeRange.1',
      start_time: toFrames(Math.max(0, inMicros), recordingRate(recording)),
      duration: framesBetween(startMicros, endMicros, rate),
    },
    effects:
      speedPercent === 100
        ? []
        : [
            {
              OTIO_SCHEMA: 'LinearTimeWarp.1',
              name: '',
              metadata: {},
              effect_name: 'LinearTimeWarp',
              time_scalar: speedPercent / 100,
            },
          ],
    markers: [],
    enabled: true,
    media_references: { DEFAULT_MEDIA: referenceTo(recording) },
    active_media_reference_key: 'DEFAULT_MEDIA',
  }
}

function referenceTo(recording: Recording) {
  return {
    OTIO_SCHEMA: 'ExternalReference.1',
    name: recording.name,
    metadata: { brimble: { recordingId: recording.id } },
    target_url: encodeURI(recording.fileName),
    available_range: rangeOf(0, recording.durationMicros, recordingRate(recording)),
  }
}

function transitionAfter(map: TimeMap, { index }: PlacedPassage, rate: number): Child[] {
  const placed = map.joins.find((j) => j.index === index)
  if (!placed) return []
  const frames = framesBetween(placed.fromMicros, placed.toMicros, rate)
  const before = { ...frames, value: Math.floor(frames.value / 2) }
  const join: Join = placed.join
  return [
    {
      OTIO_SCHEMA: 'Transition.1',
      name: join.kind,
      metadata: { brimble: { join } },
      in_offset: before,
      out_offset: { ...frames, value: frames.value - before.value },
      transition_type: join.kind === 'dissolve' ? DISSOLVE : CUSTOM,
    },
  ]
}

/** Titles, then what is said: each over its time in the output. */
function markersOf({ highlight }: Edit, map: TimeMap, rate: number): Marker[] {
  const marker = (kind: 'title' | 'caption', text: string, from: Micros, to: Micros): Marker => ({
    OTIO_SCHEMA: 'Marker.2',
    name: text.slice(0, 1000),
    metadata: { brimble: { kind } },
    color: kind === 'title' ? 'GREEN' : 'CYAN',
    marked_range: rangeOf(from, to, rate),
  })
  return [
    ...highlight.words.titles.map((t) => marker('title', t.text, t.fromMicros ?? 0, t.toMicros ?? map.lengthMicros)),
    ...cuesOf(highlight.words, map).map((c) => marker('caption', c.text, c.fromMicros, c.toMicros)),
  ]
}
