import type { Edit } from '../model/edit'
import type { RecordingId, SoundFileId } from '../model/ids'
import { recordingFeeds, type Passage } from '../model/passage'
import type { Micros } from '../time/micros'
import type { PlacedJoin, PlacedPassage, Run, TimeMap } from '../time/timeMap'
import { fromDecibels } from './levels'

/** A change of level between two output times: from silence to full (`in`) or back (`out`). */
export interface Fade {
  kind: 'in' | 'out'
  fromMicros: Micros
  toMicros: Micros
  /** *linear* keeps the sum of two alike signals, *power* (sine) that of two unlike ones. */
  curve: 'linear' | 'power'
}

/**
 * One stretch of one source as it is heard: output time `startMicros`..`endMicros`, beginning at source time
 * `fromMicros` (which may be before 0: silence).
 */
export interface SoundSegment {
  source: { kind: 'recording'; id: RecordingId } | { kind: 'file'; id: SoundFileId }
  fromMicros: Micros
  speedPercent: number
  startMicros: Micros
  endMicros: Micros
  gain: number
  fades: Fade[]
  /** How far it is lowered while somebody speaks, dB; 0 for never. */
  duckDb: number
}

/** Sound passes over a cut in this much on either side of it, so that it does not click. */
export const CUT_FADE_MICROS = 3_000

/** What of an edit is heard. */
type Sounding = Pick<Edit, 'highlight' | 'recordings' | 'soundFiles'>

/**
 * Everything that is heard of a highlight, in no particular order. Muted passages and recordings without sound give
 * nothing.
 */
export function soundPlan(edit: Sounding, map: TimeMap): SoundSegment[] {
  return [
    ...map.passages.flatMap((placed) => [...passageSegments(edit, map, placed), ...feedSegments(edit, placed)]),
    ...bedSegments(edit, map.lengthMicros),
  ]
}

function passageSegments(edit: Sounding, map: TimeMap, placed: PlacedPassage): SoundSegment[] {
  const { passage, runs } = placed
  const recording = edit.recordings.find((r) => r.id === passage.recordingId)
  if (!recording?.sound || passage.sound.muted) return []
  // Panels that move by themselves leave the sound on its cut point.
  const passing = map.joins.filter(({ join }) => !(join.kind === 'push' && join.within === 'panel'))
  const joinBefore = passing.find((j) => j.index === placed.index - 1)
  const joinAfter = passing.find((j) => j.index === placed.index)
  return runs.map((run, i) => {
    const first = i === 0
    const last = i === runs.length - 1
    const start = first ? fadeIn(run, joinBefore, placed.index === 0) : cutFade('in', run.startMicros)
    const end = last ? fadeOut(run, joinAfter, placed.index === map.passages.length - 1) : cutFade('out', run.endMicros)
    const startMicros = Math.max(0, start.fromMicros)
    return {
      source: { kind: 'recording', id: passage.recordingId },
      fromMicros: run.inMicros - Math.round(((run.startMicros - startMicros) * passage.speedPercent) / 100),
      speedPercent: passage.speedPercent,
      startMicros,
      endMicros: Math.min(map.lengthMicros, end.toMicros),
      gain: fromDecibels(passage.sound.gainDb),
      fades: [start, end, ...ownFades(placed, passage)],
      duckDb: 0,
    }
  })
}

/** What is heard of recordings that single panels play; each as long as its passage, without what joins add. */
function feedSegments(edit: Sounding, { passage, runs, startMicros, endMicros }: PlacedPassage): SoundSegment[] {
  return recordingFeeds(passage).flatMap(({ recordingId, clock, heard }) => {
    const recording = edit.recordings.find((r) => r.id === recordingId)
    if (!heard || !recording?.sound || endMicros <= startMicros) return []
    const segment = (fromMicros: Micros, speedPercent: number, from: Micros, to: Micros): SoundSegment => ({
      source: { kind: 'recording', id: recordingId },
      fromMicros,
      speedPercent,
      startMicros: from,
      endMicros: to,
      gain: fromDecibels(passage.sound.gainDb),
      fades: [
        { kind: 'in', fromMicros: from, toMicros: from + CUT_FADE_MICROS, curve: 'linear' },
        { kind: 'out', fromMicros: to - CUT_FADE_MICROS, toMicros: to, curve: 'linear' },
      ],
      duckDb: 0,
    })
    if (clock.kind === 'own') return [segment(clock.inMicros, clock.speedPercent, startMicros, endMicros)]
    return runs.map((run) =>
      segment(run.inMicros + clock.offsetMicros, passage.speedPercent, run.startMicros, run.endMicros),
    )
  })
}

function cutFade(kind: Fade['kind'], at: Micros): Fade {
  return { kind, fromMicros: at - CUT_FADE_MICROS, toMicros: at + CUT_FADE_MICROS, curve: 'linear' }
}

function fadeIn(run: Run, join: PlacedJoin | undefined, veryFirst: boolean): Fade {
  if (join) return { kind: 'in', fromMicros: join.fromMicros, toMicros: join.toMicros, curve: 'power' }
  if (veryFirst)
    return { kind: 'in', fromMicros: run.startMicros, toMicros: run.startMicros + CUT_FADE_MICROS, curve: 'linear' }
  return cutFade('in', run.startMicros)
}

function fadeOut(run: Run, join: PlacedJoin | undefined, veryLast: boolean): Fade {
  if (join) return { kind: 'out', fromMicros: join.fromMicros, toMicros: join.toMicros, curve: 'power' }
  if (veryLast)
    return { kind: 'out', fromMicros: run.endMicros - CUT_FADE_MICROS, toMicros: run.endMicros, curve: 'linear' }
  return cutFade('out', run.endMicros)
}

function ownFades({ startMicros, endMicros }: PlacedPassage, { sound }: Passage): Fade[] {
  const fades: Fade[] = []
  if (sound.fadeInMicros > 0)
    fades.push({ kind: 'in', fromMicros: startMicros, toMicros: startMicros + sound.fadeInMicros, curve: 'linear' })
  if (sound.fadeOutMicros > 0)
    fades.push({ kind: 'out', fromMicros: endMicros - sound.fadeOutMicros, toMicros: endMicros, curve: 'linear' })
  return fades
}

function bedSegments({ highlight, soundFiles }: Sounding, lengthMicros: Micros): SoundSegment[] {
  return highlight.beds.flatMap((bed) => {
    const file = soundFiles.find((s) => s.id === bed.soundFileId)
    const endMicros = Math.min(lengthMicros, bed.startMicros + (file?.durationMicros ?? 0) - bed.inMicros)
    if (!file || endMicros <= bed.startMicros) return []
    const fadeInMicros = Math.max(CUT_FADE_MICROS, bed.fadeInMicros)
    const fadeOutMicros = Math.max(CUT_FADE_MICROS, bed.fadeOutMicros)
    return [
      {
        source: { kind: 'file', id: file.id },
        fromMicros: bed.inMicros,
        speedPercent: 100,
        startMicros: bed.startMicros,
        endMicros,
        gain: fromDecibels(bed.gainDb),
        fades: [
          { kind: 'in', fromMicros: bed.startMicros, toMicros: bed.startMicros + fadeInMicros, curve: 'linear' },
          { kind: 'out', fromMicros: endMicros - fadeOutMicros, toMicros: endMicros, curve: 'linear' },
        ],
        duckDb: bed.duckDb,
      },
    ]
  })
}

/** Level of a fade at output time `t`, 0..1. */
export function fadeGain({ kind, fromMicros, toMicros, curve }: Fade, t: Micros): number {
  const share = Math.min(1, Math.max(0, (t - fromMicros) / Math.max(1, toMicros - fromMicros)))
  const level = kind === 'in' ? share : 1 - share
  return curve === 'power' ? Math.sin((level * Math.PI) / 2) : level
}
