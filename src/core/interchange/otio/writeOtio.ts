import { compose } from '../../compose/compose'
import { cuesOf } from '../../compose/wordSteps'
import type { PictureStep } from '../../compose/composition'
import { recordingOf, type Edit } from '../../model/edit'
import type { Join } from '../../model/join'
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
 * A highlight as an OpenTimelineIO timeline: a video track for each panel of a shape, the first the lowest, an audio track, joins as transitions, titles and
 * captions as markers. Where panels lie and what they show is in each clip's metadata under `brimble`; the whole edit is in the timeline's, so that reading
 * it back loses nothing.
 */
export function writeOtio(edit: Edit, shape: Shape): string {
  const map = timeMapOf(edit.highlight)
  const rate = rateOf(edit, map)
  const most = Math.max(1, ...map.passages.map((p) => panelsAt(edit, map, shape, p).length))
  const video = Array.from({ length: most }, (_, n) => trackOf('Video', nameOfPanel(edit, map, shape, n), map.passages.flatMap((p) => [...clipsOf(edit, p, rate, panelData(edit, map, shape, p, n)), ...transitionAfter(map, p, rate)])))
  const audio = trackOf('Audio', 'Sound', map.passages.flatMap((p) => (p.passage.sound.muted ? clipsOf(edit, p, rate, { muted: true }) : clipsOf(edit, p, rate, { gainDb: p.passage.sound.gainDb }))))
  const timeline: Timeline = {
    OTIO_SCHEMA: 'Timeline.1',
    name: edit.highlight.name,
    metadata: { brimble: { version: 1, shape, edit } },
    global_start_time: null,
    tracks: { OTIO_SCHEMA: 'Stack.1', name: 'tracks', metadata: {}, source_range: null, effects: [], markers: markersOf(edit, map, rate), enabled: true, children: [...video, audio] },
  }
  return `${JSON.stringify(timeline, null, 1)}\n`
}

/** All times are counted at the first recording's rate. */
function rateOf(edit: Edit, map: TimeMap): number {
  const first = map.passages[0]
  return first ? framesPerSecond(recordingOf(edit, first.passage.recordingId).video.frameRate) : 30
}

export const toRational = (t: Micros, rate: number): RationalTime => ({ OTIO_SCHEMA: 'RationalTime.1', rate, value: (t * rate) / MICROS_PER_SECOND })

function rangeOf(from: Micros, to: Micros, rate: number): TimeRange {
  return { OTIO_SCHEMA: 'TimeRange.1', start_time: toRational(from, rate), duration: toRational(to - from, rate) }
}

function trackOf(kind: 'Video' | 'Audio', name: string, children: Child[]): Track {
  return { OTIO_SCHEMA: 'Track.1', name, metadata: {}, source_range: null, effects: [], markers: [], enabled: true, kind, children }
}

function panelsAt(edit: Edit, map: TimeMap, shape: Shape, { startMicros, endMicros }: PlacedPassage): PictureStep[] {
  const t = Math.min(map.lengthMicros - 1, Math.round((startMicros + endMicros) / 2))
  return (compose(edit, map, shape, Math.max(0, t))?.steps ?? []).filter((s): s is PictureStep => s.kind === 'picture' && s.panelId !== 'backdrop')
}

function panelData(edit: Edit, map: TimeMap, shape: Shape, placed: PlacedPassage, n: number): Record<string, unknown> {
  const step = panelsAt(edit, map, shape, placed)[n]
  return step ? { shape: shape.id, panelId: step.panelId, crop: step.crop, place: step.dest, turn: step.orientation.turn, flip: step.orientation.flip } : { shape: shape.id, panelId: null }
}

function nameOfPanel(edit: Edit, map: TimeMap, shape: Shape, n: number): string {
  for (const placed of map.passages) {
    const step = panelsAt(edit, map, shape, placed)[n]
    if (step) return `Panel ${n + 1}, ${Math.round(step.dest.width)} × ${Math.round(step.dest.height)}`
  }
  return `Panel ${n + 1}`
}

/** A clip for each run: what is struck out lies between them. Its range is as long as it lasts in the output; how fast it runs through the recording is an effect. */
function clipsOf(edit: Edit, { passage, runs }: PlacedPassage, rate: number, data: Record<string, unknown>): Clip[] {
  const recording = recordingOf(edit, passage.recordingId)
  return runs.map((run: Run): Clip => ({
    OTIO_SCHEMA: 'Clip.2',
    name: recording.name,
    metadata: { brimble: { passageId: passage.id, ...data } },
    source_range: { OTIO_SCHEMA: 'TimeRange.1', start_time: toRational(run.inMicros, rate), duration: toRational(run.endMicros - run.startMicros, rate) },
    effects: passage.speedPercent === 100 ? [] : [{ OTIO_SCHEMA: 'LinearTimeWarp.1', name: '', metadata: {}, effect_name: 'LinearTimeWarp', time_scalar: passage.speedPercent / 100 }],
    markers: [],
    enabled: true,
    media_references: { DEFAULT_MEDIA: referenceTo(recording, rate) },
    active_media_reference_key: 'DEFAULT_MEDIA',
  }))
}

function referenceTo(recording: Recording, rate: number) {
  return { OTIO_SCHEMA: 'ExternalReference.1', name: recording.name, metadata: { brimble: { recordingId: recording.id } }, target_url: encodeURI(recording.fileName), available_range: rangeOf(0, recording.durationMicros, rate) }
}

function transitionAfter(map: TimeMap, { index }: PlacedPassage, rate: number): Child[] {
  const placed = map.joins.find((j) => j.index === index)
  if (!placed) return []
  const half = (placed.toMicros - placed.fromMicros) / 2
  const join: Join = placed.join
  return [{ OTIO_SCHEMA: 'Transition.1', name: join.kind, metadata: { brimble: { join } }, in_offset: toRational(half, rate), out_offset: toRational(half, rate), transition_type: join.kind === 'dissolve' ? DISSOLVE : CUSTOM }]
}

/** Titles, then what is said: each over its time in the output. */
function markersOf({ highlight }: Edit, map: TimeMap, rate: number): Marker[] {
  const marker = (kind: 'title' | 'caption', text: string, from: Micros, to: Micros): Marker => ({ OTIO_SCHEMA: 'Marker.2', name: text.slice(0, 1000), metadata: { brimble: { kind } }, color: kind === 'title' ? 'GREEN' : 'CYAN', marked_range: rangeOf(from, to, rate) })
  return [
    ...highlight.words.titles.map((t) => marker('title', t.text, t.fromMicros ?? 0, t.toMicros ?? map.lengthMicros)),
    ...cuesOf(highlight.words, map).map((c) => marker('caption', c.text, c.fromMicros, c.toMicros)),
  ]
}
