import type { Remote } from 'comlink'
import { createStore } from 'zustand/vanilla'
import { coverage } from '@/core/detect/analysis'
import { chooseDrafts, type Candidate } from '@/core/drafts/chooseDrafts'
import { proposeDrafts } from '@/core/drafts/proposeDrafts'
import { newId, type DraftRunId, type HighlightId, type RecordingId } from '@/core/model/ids'
import { DEFAULT_WEIGHTS } from '@/core/model/spotting'
import type { Recording } from '@/core/model/recording'
import { explain, quietly } from '@/diagnostics/note'
import type { InspectWorker } from '@/media/workers/inspect.protocol'
import { startWorker } from '@/media/workers/startWorker'
import { analyse, liveAnalyses } from '@/shared/recordings/analyser'
import { analysisOf } from '@/store/analyses'
import { draftRun, goingRuns, isGoing, noteRun, type DraftPick, type DraftRun } from '@/store/draftRuns'
import { highlightsOnShelf, isKept } from '@/store/highlights'
import { kept } from '@/store/rack'
import { keptRecipes } from '@/store/recipes'
import { getRecording, storedFile } from '@/store/recordings'
import { makeDraft } from './makeDraft'

/** What this tab is doing for drafts; null when nothing. `secondsLeft`: null while that cannot be told. */
export type DraftsWork = {
  runId: DraftRunId
  secondsLeft: number | null
} & ({ kind: 'looking'; name: string; share: number } | { kind: 'making'; done: number; of: number })

export const draftsWork = createStore<{ now: DraftsWork | null }>(() => ({ now: null }))

/** More are proposed for each recording than are wanted, so that there is something to choose from. */
const PROPOSED_PER_WANTED = 2

let running: { id: DraftRunId; abort: AbortController } | null = null
let worker: Promise<void> | null = null
/** Whether more may have been asked for since the runs were last looked at. */
let isAsked = false

/** Makes the drafts that were asked for, one run after another, and those that were cut short; in one tab at a time. */
export function startDrafts(): void {
  isAsked = true
  worker ??= navigator.locks
    .request('brimble-drafts', makeRuns)
    .catch(quietly('making drafts'))
    .finally(() => {
      worker = null
      if (isAsked) startDrafts()
    })
}

async function makeRuns(): Promise<void> {
  for (;;) {
    isAsked = false
    const [run] = await goingRuns()
    if (!run) return
    const abort = new AbortController()
    running = { id: run.id, abort }
    try {
      await goOn(run, abort.signal)
    } catch (error) {
      await noteRun(run.id, { state: 'stopped', problem: explain('making drafts', error) })
    } finally {
      running = null
      draftsWork.setState({ now: null })
    }
  }
}

/** Lets go of what is being made of a run that has been stopped. */
export function interruptDrafts(id: DraftRunId): void {
  if (running?.id === id) running.abort.abort()
}

async function goOn(run: DraftRun, signal: AbortSignal): Promise<void> {
  const picks = run.state === 'finding' ? await pickMoments(run, signal) : run.picks
  if (!picks) return
  const inspect = startWorker<InspectWorker>(
    () => new Worker(new URL('@/media/workers/inspect.worker.ts', import.meta.url), { type: 'module' }),
  )
  try {
    await makePicks({ ...run, picks }, inspect.remote, signal)
  } finally {
    inspect.end()
  }
  await noteRun(run.id, { state: 'done' })
}

/** Looks the recordings through and notes which moments are to be made; null when it was stopped. */
async function pickMoments(run: DraftRun, signal: AbortSignal): Promise<readonly DraftPick[] | null> {
  const { count, mostMicros, mostTotalMicros, recordingIds } = run.wish
  const candidates: Candidate[] = []
  const unread: RecordingId[] = []
  const told = timeTeller(recordingIds.length)
  for (const [n, id] of recordingIds.entries()) {
    const recording = await getRecording(id)
    const stored = recording && (await storedFile(id))
    if (!recording || !stored?.ok) {
      unread.push(id)
      continue
    }
    const tell = (share: number) =>
      draftsWork.setState({
        now: { runId: run.id, kind: 'looking', name: recording.name, share, secondsLeft: told(n + share) },
      })
    if (!(await lookThrough(recording, stored.file, tell, signal))) {
      if (signal.aborted) return null
      unread.push(id)
      continue
    }
    const moments = proposeDrafts(await analysisOf(recording), DEFAULT_WEIGHTS, {
      count: count * PROPOSED_PER_WANTED,
      mostMicros,
    })
    candidates.push(...moments.map((moment) => ({ recordingId: id, moment })))
  }
  const cut = (await highlightsOnShelf()).flatMap((h) => h.passages)
  const picks = chooseDrafts(candidates, cut, { count, mostMicros: mostTotalMicros }).map((c): DraftPick => ({
    ...c,
    highlightId: newId<HighlightId>(),
    state: 'waiting',
  }))
  return (await noteRun(run.id, { state: 'making', picks, unread })) ? picks : null
}

/** Looks a recording through to its end; false when it cannot be, or it was stopped. */
async function lookThrough(
  recording: Recording,
  file: Blob,
  tell: (share: number) => void,
  signal: AbortSignal,
): Promise<boolean> {
  const stopTelling = liveAnalyses.subscribe((all) => {
    const live = all[recording.id]
    if (!live) return
    const { sound, pictures } = coverage(live.analysis)
    // Where there is sound it takes about a quarter of the time.
    tell(recording.sound ? sound / 4 + (3 * pictures) / 4 : pictures)
  })
  tell(0)
  try {
    // Somebody who looks at another recording meanwhile comes first; then this goes on.
    for (;;) {
      await analyse(recording, file, { kind: 'all' }, 'in-turn')
      const state = liveAnalyses.getState()[recording.id]?.state.kind
      if (signal.aborted || state === 'failed') return false
      if (state === 'done') return true
    }
  } finally {
    stopTelling()
  }
}

async function makePicks(run: DraftRun, inspect: Remote<InspectWorker>, signal: AbortSignal): Promise<void> {
  const recipe = (await keptRecipes()).find((r) => r.recipe.id === run.wish.recipeId) ?? null
  const outlet = (await kept('outlet')).find((o) => o.id === run.wish.outletId) ?? null
  const told = timeTeller(run.picks.filter((p) => p.state === 'waiting').length)
  let made = 0
  for (const pick of run.picks) {
    if (pick.state !== 'waiting') continue
    const done = run.picks.filter((p) => p.state === 'made').length + made
    draftsWork.setState({
      now: { runId: run.id, kind: 'making', done, of: run.picks.length, secondsLeft: told(made) },
    })
    const [recording, stored] = await Promise.all([getRecording(pick.recordingId), storedFile(pick.recordingId)])
    const isThere = recording !== null && stored.ok
    // One that is there already was kept just before something cut the run short.
    if (isThere && !(await isKept(pick.highlightId)))
      await makeDraft({ run, pick, recording, file: stored.file, recipe, outlet, inspect, signal })
    if (signal.aborted) return
    const now = await draftRun(run.id)
    if (!now || !isGoing(now)) return
    const state = isThere ? 'made' : 'failed'
    await noteRun(run.id, { picks: now.picks.map((p) => (p.highlightId === pick.highlightId ? { ...p, state } : p)) })
    made++
  }
}

/** Tells how long the rest of some steps takes by how long those before took, seconds; null while that says little. */
function timeTeller(steps: number): (done: number) => number | null {
  const started = performance.now()
  return (done) => {
    const seconds = (performance.now() - started) / 1000
    return done > 0.05 * steps && seconds > 3 ? Math.round((seconds / done) * (steps - done)) : null
  }
}
