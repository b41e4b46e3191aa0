import { proxy } from 'comlink'
import type { SpeechStretch } from '@/core/sound/ducking'
import type { SourceFile } from '../source/openSources'
import type { AlignOutcome, AlignWorker } from '../workers/align.protocol'
import { startWorker, type StartedWorker } from '../workers/startWorker'

/** The decoder stays so long after it was last asked: lines are corrected one after another. */
const STAYS_MS = 60_000

let started: StartedWorker<AlignWorker> | null = null
let ending: ReturnType<typeof setTimeout> | undefined

/** Finds when known words are said; see {@link AlignWorker}. A later call ends an earlier one. */
export async function alignWithSound(
  file: SourceFile,
  words: readonly string[],
  speech: readonly SpeechStretch[],
  watch?: { onShare: (share: number) => void; signal: AbortSignal },
): Promise<AlignOutcome> {
  clearTimeout(ending)
  if (!started || started.isBroken())
    started = startWorker<AlignWorker>(
      () => new Worker(new URL('../workers/align.worker.ts', import.meta.url), { type: 'module' }),
    )
  const { remote } = started
  const stop = () => void remote.stop()
  watch?.signal.addEventListener('abort', stop)
  try {
    return await remote.align(
      file,
      words,
      speech,
      proxy((share) => watch?.onShare(share)),
    )
  } finally {
    watch?.signal.removeEventListener('abort', stop)
    clearTimeout(ending)
    ending = setTimeout(() => {
      started?.end()
      started = null
    }, STAYS_MS)
  }
}
