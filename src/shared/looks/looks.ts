import { proxy } from 'comlink'
import { createStore } from 'zustand/vanilla'
import type { RegionProposal } from '@/core/detect/regions/proposal'
import { StillLines } from '@/core/detect/regions/lines'
import type { SnapLines } from '@/core/detect/regions/snap'
import type { Rect } from '@/core/geometry/rect'
import type { Edit } from '@/core/model/edit'
import type { RecordingId } from '@/core/model/ids'
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

/** What this tab has seen of recordings, by id. Not stored: looking again takes seconds. */
export const looks = createStore<Record<RecordingId, LookState>>(() => ({}))

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

/** Looks that go on, by recording: the last that was begun. */
const going = new Map<RecordingId, GoingLook>()

/**
 * Looks at a recording where a highlight uses it. Resolves with what was seen; null when it was stopped or failed. One
 * that goes on already will do, unless somebody asks anew or wants more than it sees; a new one ends it, and is waited
 * for in its stead.
 */
export async function lookAt(
  recording: Recording,
  file: Blob,
  edit: Edit,
  why: LookReason = 'asked',
): Promise<Look | null> {
  const { id } = recording
  const withFaces = why !== 'in-passing'
  const same = going.get(id)
  if (same && why !== 'asked' && (same.withFaces || !withFaces)) return resultOf(id, same)
  const isLast = () => going.get(id) === look
  const look: GoingLook = { withFaces, result: Promise.resolve(null) }
  going.set(id, look)
  look.result = lookNow(recording, file, edit, why, isLast)
  const seen = await resultOf(id, look)
  if (isLast()) going.delete(id)
  return seen
}

/** What a look sees, or one that ended it. */
async function resultOf(id: RecordingId, look: GoingLook): Promise<Look | null> {
  const seen = await look.result
  const newer = going.get(id)
  return seen ?? (newer && newer !== look ? resultOf(id, newer) : null)
}

async function lookNow(
  recording: Recording,
  file: Blob,
  edit: Edit,
  why: LookReason,
  isLast: () => boolean,
): Promise<Look | null> {
  const { id, originMicros, video } = recording
  const asked = why !== 'in-passing'
  const set = (state: LookState) => isLast() && (asked || state.kind === 'seen') && looks.setState({ [id]: state })
  set({ kind: 'looking', share: 0 })
  const times = timesIn(edit, id)
  const outcome = await lookout()
    .look(
      { id, file, originMicros },
      { width: video.width, height: video.height },
      times,
      asked,
      proxy((share: number) => looks.getState()[id]?.kind === 'looking' && set({ kind: 'looking', share })),
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
  else if (asked && isLast()) forget(id)
  return outcome.kind === 'seen' ? outcome.look : null
}

/** Puts a proposal in the place of another, as somebody has changed it before accepting it. */
export function changeProposal(id: RecordingId, from: RegionProposal, to: RegionProposal): void {
  const state = looks.getState()[id]
  if (state?.kind !== 'seen') return
  const proposals = state.look.proposals.map((p) => (p === from ? to : p))
  looks.setState({ [id]: { ...state, look: { ...state.look, proposals } } })
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

/** A rectangle (px) without border and black; null when the recording has not been looked at. */
export function tightened(id: RecordingId, rect: Rect): Promise<Rect | null> {
  return lookout().tighten(id, rect)
}

function forget(id: RecordingId): void {
  looks.setState((all) => Object.fromEntries(Object.entries(all).filter(([known]) => known !== id)), true)
}

/** Recording times spread evenly over what a highlight plays of a recording, rising. */
function timesIn(edit: Edit, id: RecordingId): Micros[] {
  const kept = edit.highlight.passages.filter((p) => p.recordingId === id).flatMap(keptStretches)
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
