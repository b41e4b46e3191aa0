import { proxy } from 'comlink'
import { createStore } from 'zustand/vanilla'
import { PART_MICROS, partCount, type Analysis } from '@/core/detect/analysis'
import type { RecordingId } from '@/core/model/ids'
import type { Recording } from '@/core/model/recording'
import type { Micros } from '@/core/time/micros'
import { explain, quietly } from '@/diagnostics/note'
import type { AnalyseOutcome, AnalyseWorker, FoundPart } from '@/media/workers/analyse.protocol'
import { sharedWorker } from '@/media/workers/startWorker'
import { analysisOf, keepAnalysisPart } from '@/store/analyses'

export type AnalysisState =
  { kind: 'waiting' } | { kind: 'running' } | { kind: 'paused' } | { kind: 'done' } | { kind: 'failed'; detail: string }

/** What is known of a recording, growing while it is looked through. `analysis` is a new object with every part. */
export interface LiveAnalysis {
  analysis: Analysis
  state: AnalysisState
}

/** What to look through: everything, or only the sound of stretches of recording time. */
export type Wanted = { kind: 'all' } | { kind: 'sound'; stretches: readonly { fromMicros: Micros; toMicros: Micros }[] }

/** Every recording that this tab has begun to look through. */
export const liveAnalyses = createStore<Record<RecordingId, LiveAnalysis>>(() => ({}))

let running: RecordingId | null = null
/** Jobs of this tab, one after the other. */
let queue: Promise<void> = Promise.resolve()

const analyst = sharedWorker<AnalyseWorker>(
  () => new Worker(new URL('@/media/workers/analyse.worker.ts', import.meta.url), { type: 'module' }),
)

function set(id: RecordingId, change: (live: LiveAnalysis) => LiveAnalysis): void {
  liveAnalyses.setState((all) => (all[id] ? { [id]: change(all[id]) } : all))
}

const setKind = (id: RecordingId, state: AnalysisState) => set(id, (live) => ({ ...live, state }))

/**
 * Looks through a recording, from where it was left; what is found is kept at once. Another recording that is being
 * looked through is left for later, or done first where this one is `in-turn`. Two tabs never do the same work: the
 * second waits for the first, then goes on from what that found.
 */
export function analyse(
  recording: Recording,
  file: Blob,
  wanted: Wanted = { kind: 'all' },
  when: 'at-once' | 'in-turn' = 'at-once',
): Promise<void> {
  if (when === 'at-once' && running !== null && running !== recording.id) pauseAnalysis(running)
  const job = queue.then(() => run(recording, file, wanted))
  queue = job.catch(() => {})
  return job
}

export function pauseAnalysis(id: RecordingId): void {
  setKind(id, { kind: 'paused' })
  if (running === id) void analyst().stop()
}

async function run(recording: Recording, file: Blob, wanted: Wanted): Promise<void> {
  const { id, originMicros, durationMicros } = recording
  const known = liveAnalyses.getState()[id]
  if (!known) liveAnalyses.setState({ [id]: { analysis: await analysisOf(recording), state: { kind: 'waiting' } } })
  else setKind(id, { kind: 'waiting' })
  await navigator.locks.request(`brimble-analyse ${id}`, async () => {
    const analysis = await analysisOf(recording)
    set(id, (live) => ({ ...live, analysis }))
    if (liveAnalyses.getState()[id]?.state.kind === 'paused') return
    const todo = missingParts(recording, analysis, wanted)
    if (todo.sound.length + todo.pictures.length === 0) return setKind(id, { kind: 'done' })
    running = id
    setKind(id, { kind: 'running' })
    const outcome = await analyst()
      .analyse(
        { file, originMicros, durationMicros, ...todo },
        proxy((part: FoundPart) => take(id, part)),
      )
      .catch((error: unknown): AnalyseOutcome => ({
        kind: 'failed',
        detail: explain('listening to a recording', error),
      }))
    running = null
    if (outcome.kind === 'failed') setKind(id, outcome)
    else if (outcome.kind === 'done') setKind(id, { kind: 'done' })
  })
}

function missingParts(
  recording: Recording,
  { sound, pictures }: Analysis,
  wanted: Wanted,
): { sound: number[]; pictures: number[] } {
  const all = Array.from({ length: partCount(recording.durationMicros) }, (_, i) => i)
  const heard = recording.sound ? all.filter((i) => !sound.has(i)) : []
  if (wanted.kind === 'all') return { sound: heard, pictures: all.filter((i) => !pictures.has(i)) }
  return {
    sound: heard.filter((i) =>
      wanted.stretches.some(
        ({ fromMicros, toMicros }) => (i + 1) * PART_MICROS > fromMicros && i * PART_MICROS < toMicros,
      ),
    ),
    pictures: [],
  }
}

function take(id: RecordingId, found: FoundPart): void {
  // What there is no room for is found again next time.
  keepAnalysisPart({ recordingId: id, ...found }).catch(quietly('listening to a recording'))
  set(id, (live) => {
    const { analysis } = live
    const grown =
      found.kind === 'sound'
        ? { ...analysis, sound: new Map(analysis.sound).set(found.index, found.part) }
        : { ...analysis, pictures: new Map(analysis.pictures).set(found.index, found.part) }
    return { ...live, analysis: grown }
  })
}
