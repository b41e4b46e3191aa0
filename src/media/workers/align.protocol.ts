import type { AlignedWord } from '@/core/words/align/alignWords'
import type { SpeechStretch } from '@/core/sound/ducking'
import type { Micros } from '@/core/time/micros'
import type { SourceFile } from '../source/openSources'

export type AlignOutcome =
  /** One for each word; null where it could not be made out. */
  | { kind: 'done'; words: (AlignedWord | null)[] }
  | { kind: 'stopped' }
  /** Too few of the words are English. */
  | { kind: 'other-language' }
  /** `detail`: what the decoder or the file said, in no language of ours. */
  | { kind: 'failed'; detail: string }

export interface AlignWorker {
  /**
   * Finds when each of `words`, as they are said, is said in a recording; `speech`: where somebody is heard speaking.
   * `onShare`: 0..1, rising.
   */
  align(
    file: SourceFile,
    words: readonly string[],
    speech: readonly SpeechStretch[],
    onShare: (share: number) => void,
  ): Promise<AlignOutcome>
  /** Sound of a recording as speech recognisers take it: mono, 16 bit, 16,000 samples a second. */
  samples(file: SourceFile, fromMicros: Micros, toMicros: Micros): Promise<Int16Array<ArrayBuffer>>
  stop(): void
}
