import { proxy } from 'comlink'
import { createStore } from 'zustand/vanilla'
import type { RegionProposal } from '@/core/detect/regions/proposal'
import { StillLines } from '@/core/detect/regions/lines'
import type { SnapLines } from '@/core/detect/regions/snap'
import type { Rect } from '@/core/geometry/rect'
import type { Edit } from '@/core/model/edit'
import type { SetupId } from '@/core/model/ids'
import type { Recording } from '@/core/model/recording'
import type { Micros } from '@/core/time/micros'
import { keptStretches } from '@/core/time/timeMap'
import { explain } from '@/diagnostics/note'
import type { Look, LookOutcome, RegionsWorker } from '@/media/workers/regions.protocol'
import { sharedWorker } from '@/media/workers/startWorker'

/**
 * `asked`: somebody wanted to know what regions there are; else it was looked at for something else, and nothing is
 * proposed.
 */
export type LookState =
  | { kind: 'looking'; share: number }
  | { kind: 'seen'; look: Look; lines: SnapLines; asked: boolean }
  | { kind: 'failed'; detail: string }

/** A recording where a highlight plays it with one setup: each scene is looked at by itself. */
export interface Scene {
  recording: Recording
  setupId: SetupId
}

/** By which a scene is known here. */
export const sceneKey = ({ recording, setupId }: Scene): string => `${recording.id} ${setupId}`

/** What this tab has seen of scenes, by {@link sceneKey}. Not stored: looking again takes seconds. */
export const looks = createStore<Record<string, LookState>>(() => ({}))

/** Frames that are looked at. */
const FRAMES = 16

const lookout = sharedWorker<RegionsWorker>(
  () => new Worker(new URL('@/media/workers/regions.worker.ts', import.meta.url), { type: 'module' }),
)

/**
 * Why a recording is looked at: somebody *asked*; it goes on *by itself*, and that it failed is not told; or *in
 * passing*, for what holds still in it, when nobody is looked for and nothing is told.
 */
type LookReason = 'asked' | 'by-itself' | 'in-passing'

interface GoingLook {
  withFaces: boolean
  result: Promise<Look | null>
}

/** Looks that go on, by scene: the last that was begun. */
const going = new Map<string, GoingLook>()

/**
 * Looks at a scene where a highlight plays it. Resolves with what was seen; null when it was stopped or failed. One
 * that goes on already will do, unless somebody asks anew or wants more than it sees; a new one ends it, and is waited
 * for in its stead.
 */
export async function lookAt(scene: Scene, file: Blob, edit: Edit, why: LookReason = 'asked'): Promise<Look | null> {
  const key = sceneKey(scene)
  const withFaces = why !== 'in-passing'
  const same = going.get(key)
  if (same && why !== 'asked' && (same.withFaces || !withFaces)) return resultOf(key, same)
  const isLast = () => going.get(key) === look
  const look: GoingLook = { withFaces, result: Promise.resolve(null) }
  going.set(key, look)
  look.result = lookNow(scene, file, edit, why, isLast)
  const seen = await resultOf(key, look)
  if (isLast()) going.delete(key)
  return seen
}

/** What a look sees, or one that ended it. */
async function resultOf(key: string, look: GoingLook): Promise<Look | null> {
  const seen = await look.result
  const newer = going.get(key)
  return seen ?? (newer && newer !== look ? resultOf(key, newer) : null)
}

async function lookNow(
  scene: Scene,
  file: Blob,
  edit: Edit,
  why: LookReason,
  isLast: () => boolean,
): Promise<Look | null> {
  const { originMicros, video } = scene.recording
  const key = sceneKey(scene)
  const asked = why !== 'in-passing'
  const set = (state: LookState) => isLast() && (asked || state.kind === 'seen') && looks.setState({ [key]: state })
  set({ kind: 'looking', share: 0 })
  const times = timesIn(edit, scene)
  // The worker looks at one scene at a time; another scene's look is not to be lost for this one.
  await Promise.allSettled([...going].filter(([other]) => other !== key).map(([, { result }]) => result))
  const outcome = await lookout()
    .look(
      { id: key, file, originMicros },
      { width: video.width, height: video.height },
      times,
      asked,
      proxy((share: number) => looks.getState()[key]?.kind === 'looking' && set({ kind: 'looking', share })),
    )
    .catch((error: unknown): LookOutcome => ({ kind: 'failed', detail: explain('a look at a recording', error) }))
  if (outcome.kind === 'seen')
    set({
      kind: 'seen',
      look: outcome.look,
      lines: { upright: new StillLines(outcome.look.upright), level: new StillLines(outcome.look.level) },
      asked,
    })
  else if (outcome.kind === 'failed' && why === 'asked') set(outcome)
  else if (asked && isLast()) forget(key)
  return outcome.kind === 'seen' ? outcome.look : null
}

/** Puts a proposal in the place of another, as somebody has changed it before accepting it. */
export function changeProposal(scene: Scene, from: RegionProposal, to: RegionProposal): void {
  const key = sceneKey(scene)
  const state = looks.getState()[key]
  if (state?.kind !== 'seen') return
  const proposals = state.look.proposals.map((p) => (p === from ? to : p))
  looks.setState({ [key]: { ...state, look: { ...state.look, proposals } } })
}

export function stopLooking(): void {
  void lookout().stop()
}

/** How much regions (px of the recording) stir in each of some stretches; see core/detect/regions/whoSpeaks. */
export function stirIn(
  { id, originMicros, video }: Recording,
  file: Blob,
  regions: Rect[],
  stretches: { fromMicros: Micros; toMicros: Micros }[],
): Promise<number[][]> {
  return lookout().stir({ id, file, originMicros }, { width: video.width, height: video.height }, regions, stretches)
}

/** A rectangle (px) without border and black; null when the scene is not the one looked at last. */
export function tightened(scene: Scene, rect: Rect): Promise<Rect | null> {
  return lookout().tighten(sceneKey(scene), rect)
}

function forget(key: string): void {
  looks.setState((all) => Object.fromEntries(Object.entries(all).filter(([known]) => known !== key)), true)
}

/** Recording times spread evenly over what a highlight plays of a scene, rising. */
function timesIn(edit: Edit, { recording, setupId }: Scene): Micros[] {
  const plays = edit.highlight.passages.filter((p) => p.recordingId === recording.id && p.setupId === setupId)
  return spread(plays.flatMap(keptStretches))
}

/** Recording times spread evenly over stretches of a recording, rising. */
function spread(kept: readonly { inMicros: Micros; outMicros: Micros }[]): Micros[] {
  const total = kept.reduce((sum, s) => sum + s.outMicros - s.inMicros, 0)
  const times = Array.from({ length: FRAMES }, (_, n) => {
    let at = Math.round((total * (n + 0.5)) / FRAMES)
    for (const { inMicros, outMicros } of kept) {
      if (at < outMicros - inMicros) return inMicros + at
      at -= outMicros - inMicros
    }
    return kept.at(-1)?.outMicros ?? 0
  })
  return [...new Set(times)].sort((a, b) => a - b)
}
