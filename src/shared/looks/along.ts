import { proxy, type Remote } from 'comlink'
import { createStore } from 'zustand/vanilla'
import { regionIn } from '@/core/compose/regionIn'
import { presenceOf, type Presence } from '@/core/detect/regions/presence'
import { subjectsOf, type FoundSample, type Subjects } from '@/core/detect/regions/subjects'
import { areaOf, pushInside, unionOf, type Point, type Rect } from '@/core/geometry/rect'
import type { PassageId } from '@/core/model/ids'
import type { Passage } from '@/core/model/passage'
import type { Recording } from '@/core/model/recording'
import { showsSomebody, WHOLE_FRAME, type Region } from '@/core/model/region'
import { toRecordingMicros, type TimeMap } from '@/core/time/timeMap'
import type { Micros } from '@/core/time/micros'
import { explain } from '@/diagnostics/note'
import type { AlongOutcome, AlongWorker, SearchArea } from '@/media/workers/along.protocol'
import { startWorker } from '@/media/workers/startWorker'
import { letGoOfUrl } from '@/ui/letGoOfUrl'

/** A moment of a highlight that was looked at. */
export interface AlongMoment {
  passageId: PassageId
  outputMicros: Micros
  recordingMicros: Micros
  /** Whether it has been looked at yet. */
  seen: boolean
  /** The whole frame, small; null while it is not there yet, and where no pictures are wanted. */
  url: string | null
  faces: Record<string, Rect[]>
  moving: Record<string, Rect | null>
  salient: Record<string, Point | null>
}

/** What has been seen along the passages that play one recording with one setup. */
export interface Along {
  key: string
  /** *stopped*: something else came between, and it is begun again; *ended*: by somebody. */
  state: 'looking' | 'done' | 'stopped' | 'ended' | 'failed'
  /** How long it still takes by how long it took so far, seconds; null while that says little. */
  secondsLeft: number | null
  everyMicros: Micros
  moments: AlongMoment[]
  /** First frames of shots, recording time; known when it is done. Not those at which somebody watched stays. */
  cuts: Micros[]
  /** Those of them with which nothing goes on of what was there before. */
  sceneChanges: Micros[]
}

/** What to look at, and by which key it is known that it has been. */
export interface AlongPlan {
  key: string
  recording: Recording
  everyMicros: Micros
  moments: Pick<AlongMoment, 'passageId' | 'outputMicros' | 'recordingMicros'>[]
  areas: SearchArea[]
  closely: boolean
}

/** Of this tab's highlights, the one looked along last. Not stored: looking again takes seconds. */
export const along = createStore<{ shown: Along | null }>(() => ({ shown: null }))

/** Moments lie this far apart; in long highlights up to twice as far, so that no second can hide. */
const EVERY_MICROS = 250_000
const MAX_AT_THAT = 480

/** Faces are looked for this far around a region too, in shares of its sides: whoever has left it is near. */
const AROUND = 0.5
/** Areas lie on a grid of this many parts of the frame, so that small moves of a region need no new look. */
const GRID = 24

/** From this share on what has been looked at tells how long the rest takes. */
const SAYS_LITTLE = 0.1

let running: Remote<AlongWorker> | null = null

/**
 * Moments of the passages that play as `passage` does, and where to look for somebody in them: in regions about
 * somebody, unless they are a guess, and in those that follow.
 */
export function planAlong(
  map: TimeMap,
  recording: Recording,
  { setupId }: Pick<Passage, 'setupId'>,
  regions: readonly Region[],
  isGuess: boolean,
  followed: ReadonlySet<string>,
): AlongPlan {
  const everyMicros = Math.min(2 * EVERY_MICROS, Math.max(EVERY_MICROS, Math.ceil(map.lengthMicros / MAX_AT_THAT)))
  const moments: AlongPlan['moments'] = []
  for (let t = Math.min(everyMicros, map.lengthMicros) / 2; t < map.lengthMicros; t += everyMicros) {
    const outputMicros = Math.round(t)
    const place = toRecordingMicros(map, outputMicros)
    if (place?.passage.recordingId === recording.id && place.passage.setupId === setupId)
      moments.push({ passageId: place.passage.id, outputMicros, recordingMicros: place.recordingMicros })
  }
  const playing = map.passages
    .map((p) => p.passage)
    .filter((p) => p.recordingId === recording.id && p.setupId === setupId)
  const areas = regions
    .filter((r) => (showsSomebody(r.role) && !isGuess) || followed.has(r.id))
    .map((r) => {
      // Wherever it lies in any of the passages.
      const bounds = playing.map((p) => regionIn(p, r, p.inMicros).bounds).reduce(unionOf, r.bounds)
      return { id: r.id, area: onGrid(bounds, AROUND), core: onGrid(bounds, 0) }
    })
  const closely = followed.size > 0
  return {
    key: JSON.stringify([recording.id, setupId, closely, moments.map((m) => m.recordingMicros), areas]),
    recording,
    everyMicros,
    moments,
    areas,
    closely,
  }
}

function onGrid({ x, y, width, height }: Rect, around: number): Rect {
  const left = Math.max(0, Math.round((x - around * width) * GRID))
  const top = Math.max(0, Math.round((y - around * height) * GRID))
  const right = Math.min(GRID, Math.max(left + 1, Math.round((x + width + around * width) * GRID)))
  const bottom = Math.min(GRID, Math.max(top + 1, Math.round((y + height + around * height) * GRID)))
  return { x: left / GRID, y: top / GRID, width: (right - left) / GRID, height: (bottom - top) / GRID }
}

/**
 * Looks along a plan, from output time `hereMicros` on first; an earlier look ends. What is seen appears in
 * {@link along} as it comes.
 */
export async function lookAlong(plan: AlongPlan, file: Blob, hereMicros: Micros): Promise<void> {
  stopLookingAlong()
  forgetPictures()
  let begun = false
  await seeAlong(plan, file, {
    withPictures: true,
    hereMicros,
    onStart: (worker) => (running = worker),
    onSeen: (shown) => {
      if (isEnded(plan)) return
      // What nobody waits for any more is not shown in the place of what is.
      if (!begun || along.getState().shown?.key === plan.key) along.setState({ shown })
      else for (const { url } of shown.moments) if (url) letGoOfUrl(url)
      begun = true
    },
    onEnd: (worker) => running === worker && (running = null),
  })
}

interface Watch {
  /** Whether pictures of the moments are wanted; whoever gets them lets go of their addresses. */
  withPictures: boolean
  /** The output time that is looked at first; the start when nothing is said. */
  hereMicros?: Micros
  onStart?: (worker: Remote<AlongWorker>) => void
  onSeen?: (seen: Along) => void
  onEnd?: (worker: Remote<AlongWorker>) => void
}

/**
 * Looks along a plan in a worker that is used once: model, index and decoder are a hundred megabytes that nobody
 * needs afterwards.
 */
export async function seeAlong(
  plan: AlongPlan,
  file: Blob,
  { withPictures, hereMicros = 0, onStart, onSeen, onEnd }: Watch,
): Promise<Along> {
  const { remote, end } = startWorker<AlongWorker>(
    () => new Worker(new URL('@/media/workers/along.worker.ts', import.meta.url), { type: 'module' }),
  )
  onStart?.(remote)
  const order = plan.moments.map((_, i) => i).sort((a, b) => recordingMicros(plan, a) - recordingMicros(plan, b))
  let seen: Along = {
    key: plan.key,
    state: 'looking',
    secondsLeft: null,
    everyMicros: plan.everyMicros,
    moments: plan.moments.map((m) => ({ ...m, seen: false, url: null, faces: {}, moving: {}, salient: {} })),
    cuts: [],
    sceneChanges: [],
  }
  const tell = (change: Partial<Along>) => {
    seen = { ...seen, ...change }
    onSeen?.(seen)
  }
  tell({})
  const begunAt = performance.now()
  const { id, originMicros } = plan.recording
  const outcome = await remote
    .look(
      { id, file, originMicros },
      order.map((i) => recordingMicros(plan, i)),
      plan.moments.find((m) => m.outputMicros >= hereMicros)?.recordingMicros ?? 0,
      plan.areas,
      plan.closely,
      proxy(({ index, picture, faces }) => {
        const place = order[index]
        if (place === undefined) return
        const moments = seen.moments.map((m, i) =>
          i === place ? { ...m, seen: true, url: withPictures ? URL.createObjectURL(picture) : null, faces } : m,
        )
        tell({ moments, secondsLeft: secondsLeft(moments, begunAt) })
      }),
    )
    .catch((error: unknown): AlongOutcome => ({ kind: 'failed', detail: explain('a look along a highlight', error) }))
  end()
  onEnd?.(remote)
  if (outcome.kind !== 'done') tell({ state: outcome.kind })
  else {
    const moments = [...seen.moments]
    order
      .filter((place) => moments[place]?.seen)
      .forEach(
        (place, n) =>
          (moments[place] = {
            ...(moments[place] as AlongMoment),
            moving: nth(outcome.moving, n),
            salient: nth(outcome.salient, n),
          }),
      )
    tell({ state: 'done', moments, cuts: outcome.cuts, sceneChanges: outcome.sceneChanges })
  }
  return seen
}

const nth = <T>(rows: Record<string, (T | null)[]>, n: number) =>
  Object.fromEntries(Object.entries(rows).map(([id, row]) => [id, row[n] ?? null]))

const recordingMicros = ({ moments }: AlongPlan, i: number) => moments[i]?.recordingMicros ?? 0

export function stopLookingAlong(): void {
  void running?.stop()
}

const isEnded = ({ key }: AlongPlan): boolean => {
  const { shown } = along.getState()
  return shown?.key === key && shown.state === 'ended'
}

/** Somebody does not want the look that goes on; it is not begun again by itself. */
export function endLookingAlong(): void {
  const { shown } = along.getState()
  if (shown?.state !== 'looking') return
  along.setState({ shown: { ...shown, state: 'ended' } })
  stopLookingAlong()
}

/** What somebody ended is looked at again after all. */
export function lookAlongAgain(): void {
  const { shown } = along.getState()
  if (shown?.state === 'ended') along.setState({ shown: { ...shown, state: 'stopped' } })
}

function secondsLeft(moments: readonly AlongMoment[], begunAt: number): number | null {
  const seen = moments.filter((m) => m.seen).length
  if (seen < SAYS_LITTLE * moments.length) return null
  return ((performance.now() - begunAt) / 1000 / seen) * (moments.length - seen)
}

function forgetPictures(): void {
  for (const { url } of along.getState().shown?.moments ?? []) if (url) letGoOfUrl(url)
}

/** Where a region lies in each passage, fractions of the frame. */
export function boundsByPassage(passages: readonly Passage[], region: Region): ReadonlyMap<PassageId, Rect> {
  return new Map(passages.map((p) => [p.id, regionIn(p, region, p.inMicros).bounds]))
}

/** What was found at each moment that has been seen, for one region, with where it lay then. */
export function foundSamples({ moments }: Along, region: Region, bounds: ReadonlyMap<PassageId, Rect>): FoundSample[] {
  return moments.flatMap((m) =>
    m.seen
      ? [
          {
            micros: m.outputMicros,
            bounds: bounds.get(m.passageId) ?? region.bounds,
            faces: m.faces[region.id] ?? [],
            moving: m.moving[region.id] ?? null,
          },
        ]
      : [],
  )
}

/** Regions whose crops follow a path in a passage. */
export function followedIn({ cropPaths }: Passage): ReadonlySet<string> {
  return new Set(cropPaths.map((p) => p.regionId))
}

/**
 * How well a region holds whoever it is about, told by faces or by what moves; null while it has not been looked
 * along to the end.
 */
export function presenceIn(
  along: Along,
  region: Region,
  bounds: ReadonlyMap<PassageId, Rect>,
): { presence: Presence | null; subjects: Subjects } {
  const subjects = subjectsOf(foundSamples(along, region, bounds))
  return { subjects, presence: along.state === 'done' ? presenceOf(subjects.samples, along.everyMicros) : null }
}

/**
 * The least bounds that hold a region as it lies and its subject wherever it was found; null where that is no larger.
 */
export function boundsToHold(here: Rect, { smallest, share }: Presence): Rect | null {
  const held = smallest && pushInside(unionOf(here, smallest), WHOLE_FRAME)
  return held && areaOf(held) > areaOf(here) * 1.01 && share < 1 ? held : null
}
