import { transfer } from 'comlink'
import createModule from 'soundswallower'
import type { SpeechStretch } from '@/core/sound/ducking'
import type { Micros } from '@/core/time/micros'
import { alignWords } from '@/core/words/align/alignWords'
import { HEARD_RATE, type Place, type WordDecoder } from '@/core/words/align/hearWords'
import { isEnglish } from '@/core/words/align/isEnglish'
import { WordListener } from '@/core/words/align/wordListener'
import { explain } from '@/diagnostics/note'
import { decodeMono } from '../analyse/decodePart'
import { openSound, type SoundSource } from '../source/openSource'
import type { SourceFile } from '../source/openSources'
import type { AlignOutcome, AlignWorker } from '../workers/align.protocol'

/** Where scripts/placeAssets puts the decoder and its model. */
const ASSETS = '/aligner/'

/**
 * How far behind the best a way through the sound may fall before it is given up: more than is usual, since there is
 * one text only, and games are loud.
 */
const BEAMS = { beam: 1e-80, wbeam: 1e-60, pbeam: 1e-80 }

const placeAsBlob: Place = async (text, read) => {
  const address = URL.createObjectURL(new Blob([text]))
  try {
    await read(address)
  } finally {
    URL.revokeObjectURL(address)
  }
}

/** Lines known words up with a recording’s sound (forced alignment), by the decoder that ships with Brimble. */
export class AlignService implements AlignWorker {
  private running = new AbortController()
  private readonly listener = new WordListener(loadDecoder, placeAsBlob)

  stop(): void {
    this.running.abort()
  }

  async align(
    { file, originMicros }: SourceFile,
    words: readonly string[],
    speech: readonly SpeechStretch[],
    onShare: (share: number) => void,
  ): Promise<AlignOutcome> {
    this.running.abort()
    const { signal } = (this.running = new AbortController())
    let sound: SoundSource | null = null
    try {
      const decoder = await this.listener.ready()
      if (!isEnglish(words, (word) => decoder.lookup_word(word) !== null)) return { kind: 'other-language' }
      const opened = (sound = await openSound(file, originMicros))
      const hear = async (fromMicros: number, toMicros: number, asked: readonly string[]) => {
        const pcm = await decodeMono(opened, fromMicros, toMicros, HEARD_RATE, signal)
        signal.throwIfAborted()
        return this.listener.hear(pcm, fromMicros, asked)
      }
      return { kind: 'done', words: await alignWords(words, speech, hear, onShare) }
    } catch (error) {
      if (signal.aborted) return { kind: 'stopped' }
      return { kind: 'failed', detail: explain('lining words up', error) }
    } finally {
      sound?.dispose()
    }
  }

  async samples({ file, originMicros }: SourceFile, fromMicros: Micros, toMicros: Micros) {
    const sound = await openSound(file, originMicros)
    try {
      const pcm = await decodeMono(sound, fromMicros, toMicros, HEARD_RATE, new AbortController().signal)
      const samples = Int16Array.from(pcm, (x) => Math.round(32_767 * Math.max(-1, Math.min(1, x))))
      return transfer(samples, [samples.buffer])
    } finally {
      sound.dispose()
    }
  }
}

async function loadDecoder(): Promise<WordDecoder> {
  const { Decoder } = await createModule({ modelBase: ASSETS, locateFile: (name: string) => `${ASSETS}${name}` })
  const decoder = new Decoder({ loglevel: 'FATAL', samprate: HEARD_RATE, ...BEAMS })
  await decoder.initialize()
  return decoder as unknown as WordDecoder
}
