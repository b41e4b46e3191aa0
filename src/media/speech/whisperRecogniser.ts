import { proxy } from 'comlink'
import { linesOfWords } from '@/core/words/linesOfWords'
import { spansToHear } from '@/core/words/spansToHear'
import type { RecogniseWorker } from '../workers/recognise.protocol'
import { startWorker } from '../workers/startWorker'
import type { Recogniser } from './recogniser'
import type { WhisperFolder } from './whisperFolder'

/** A Whisper model hears half a minute at a time. */
const LONGEST_SPAN_MICROS = 29_000_000

/**
 * Writes what is said with a model of the person's own. Its worker, and the hundreds of megabytes it needs, last for
 * one call.
 */
export function whisperRecogniser(folder: WhisperFolder, language: string | null): Recogniser {
  return {
    id: 'whisper',
    simulated: false,
    canDo: ({ sound }) => Promise.resolve(sound !== null),
    recognise: async ({ id, fileName, originMicros }, file, speech, watch) => {
      watch?.signal.throwIfAborted()
      const { remote, end } = startWorker<RecogniseWorker>(
        () => new Worker(new URL('../workers/recognise.worker.ts', import.meta.url), { type: 'module' }),
      )
      const stop = () => void remote.stop()
      watch?.signal.addEventListener('abort', stop)
      try {
        const outcome = await remote.recognise(
          folder,
          { id, file, originMicros },
          spansToHear(speech, LONGEST_SPAN_MICROS),
          language,
          proxy((share) => watch?.onShare(share)),
        )
        if (outcome.kind === 'stopped') throw new DOMException('stopped', 'AbortError')
        if (outcome.kind === 'failed')
          throw new Error(
            outcome.what === 'sound'
              ? `The sound of “${fileName}” cannot be read: ${outcome.detail}`
              : `The model in “${folder.name}” cannot be run: ${outcome.detail}`,
          )
        return linesOfWords(outcome.words).map((line) => ({ ...line, voice: null }))
      } finally {
        watch?.signal.removeEventListener('abort', stop)
        end()
      }
    },
  }
}
