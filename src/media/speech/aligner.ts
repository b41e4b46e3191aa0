import { proxy } from 'comlink'
import type { SpeechStretch } from '@/core/sound/ducking'
import type { Micros } from '@/core/time/micros'
import type { SourceFile } from '../source/openSources'
import type { AlignOutcome, AlignWorker } from '../workers/align.protocol'
import { startWorker, type StartedWorker } from '../workers/startWorker'

/** The decoder stays so long after it was last asked: lines are corrected one after another. */
const STAYS_MS = 60_000

let started: StartedWorker<AlignWorker> | null = null
let ending: ReturnType<typeof setTimeout> | undefined

/** Uses the worker; it ends once nobody has for a while. */
async function withWorker<T>(ask: (worker: StartedWorker<AlignWorker>['remote']) => Promise<T>): Promise<T> {
  clearTimeout(ending)
  if (!started || started.isBroken())
    started = startWorker<AlignWorker>(
      () => new Worker(new URL('../workers/align.worker.ts', import.meta.url), { type: 'module' }),
    )
  try {
    return await ask(started.remote)
  } finally {
    clearTimeout(ending)
    ending = setTimeout(() => {
      started?.end()
      started = null
    }, STAYS_MS)
  }
}

/** Finds when known words are said; see {@link AlignWorker}. A later call ends an earlier one. */
export function alignWithSound(
  file: SourceFile,
  words: readonly string[],
  speech: readonly SpeechStretch[],
  watch?: { onShare: (share: number) => void; signal: AbortSignal },
): Promise<AlignOutcome> {
  return withWorker(async (worker) => {
    const stop = () => void worker.stop()
    watch?.signal.addEventListener('abort', stop)
    try {
      return await worker.align(
        file,
        words,
        speech,
        proxy((share) => watch?.onShare(share)),
      )
    } finally {
      watch?.signal.removeEventListener('abort', stop)
    }
  })
}

/** Sound as speech recognisers take it; see {@link AlignWorker}. */
export const samplesOf = (file: SourceFile, fromMicros: Micros, toMicros: Micros) =>
  withWorker((worker) => worker.samples(file, fromMicros, toMicros))
