import type { SpeechStretch } from '@/core/sound/ducking'
import type { HeardWord } from '@/core/words/linesOfWords'
import type { SourceFile } from '../source/openSources'
import type { WhisperFolder } from '../speech/whisperFolder'

export type RecogniseOutcome =
  | { kind: 'done'; words: HeardWord[] }
  | { kind: 'stopped' }
  /** `detail`: what the model or the file said, in no language of ours. */
  | { kind: 'failed'; what: 'model' | 'sound'; detail: string }

export interface RecogniseWorker {
  /**
   * Writes down what is said in `spans` of a recording, none longer than half a minute. `language`: as the model
   * lists it; null for a model of one language. `onShare`: 0..1, rising. Settles once.
   */
  recognise(
    folder: WhisperFolder,
    file: SourceFile,
    spans: SpeechStretch[],
    language: string | null,
    onShare: (share: number) => void,
  ): Promise<RecogniseOutcome>
  stop(): void
}
