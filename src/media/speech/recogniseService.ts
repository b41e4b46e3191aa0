import { type AutomaticSpeechRecognitionPipeline, env, LogLevel, pipeline } from '@huggingface/transformers'
import { toMicros, toSeconds } from '@/core/time/micros'
import type { SpeechStretch } from '@/core/sound/ducking'
import type { HeardWord } from '@/core/words/linesOfWords'
import { timedTokens } from '@/core/words/tokens'
import { explain } from '@/diagnostics/note'
import { decodeMono } from '../analyse/decodePart'
import type { SourceFile } from '../source/openSources'
import { openSound, type SoundSource } from '../source/openSource'
import type { RecogniseOutcome, RecogniseWorker } from '../workers/recognise.protocol'
import type { WhisperFolder } from './whisperFolder'

/** What Whisper models hear. */
const SAMPLE_RATE = 16_000

/** The loader asks for every file under this path; it is answered from the person's folder and never goes out. */
const PLACE = '/whisper/'
const MODEL = 'model'

/** Runs a Whisper model out of a person's own folder, on the processor. */
export class RecogniseService implements RecogniseWorker {
  private running = new AbortController()

  stop(): void {
    this.running.abort()
  }

  async recognise(
    folder: WhisperFolder,
    file: SourceFile,
    spans: SpeechStretch[],
    language: string | null,
    onShare: (share: number) => void,
  ): Promise<RecogniseOutcome> {
    this.running.abort()
    const { signal } = (this.running = new AbortController())
    let model: AutomaticSpeechRecognitionPipeline
    try {
      model = await loadModel(folder)
    } catch (error) {
      return { kind: 'failed', what: 'model', detail: messageOf(error) }
    }
    let sound: SoundSource | null = null
    try {
      sound = await openSound(file.file, file.originMicros)
      const listener = new Listener(model, folder.timesWords, language)
      const words: HeardWord[] = []
      for (const [i, span] of spans.entries()) {
        onShare(i / spans.length)
        const mono = await decodeMono(sound, span.fromMicros, span.toMicros, SAMPLE_RATE, signal)
        signal.throwIfAborted()
        words.push(...(await listener.hear(mono, span)))
        signal.throwIfAborted()
      }
      return { kind: 'done', words }
    } catch (error) {
      if (signal.aborted) return { kind: 'stopped' }
      return { kind: 'failed', what: sound ? 'model' : 'sound', detail: messageOf(error) }
    } finally {
      sound?.dispose()
      await model.dispose()
    }
  }
}

const messageOf = (error: unknown) => explain('speech recognition', error)

async function loadModel(folder: WhisperFolder): Promise<AutomaticSpeechRecognitionPipeline> {
  env.allowRemoteModels = false
  env.allowLocalModels = true
  env.localModelPath = PLACE
  env.useBrowserCache = false
  env.useWasmCache = false
  env.logLevel = LogLevel.ERROR
  env.fetch = (asked) => Promise.resolve(answerFrom(folder, String(asked)))
  // Else the library would fetch the runtime from a host of its own; unset, the runtime's own file is used, which the
  // application serves.
  const wasm = env.backends.onnx.wasm
  if (wasm) Object.assign(wasm, { wasmPaths: undefined, numThreads: threads() })
  const { encoder, decoder } = folder.forms
  return pipeline('automatic-speech-recognition', MODEL, {
    device: 'wasm',
    dtype: { encoder_model: encoder, decoder_model_merged: decoder },
  })
}

/** One processor is left to the page. */
const threads = () => Math.max(1, Math.min(4, navigator.hardwareConcurrency - 1))

function answerFrom(folder: WhisperFolder, url: string): Response {
  const blob = folder.files.get(
    decodeURIComponent(new URL(url, 'http://localhost').pathname).replace(`${PLACE}${MODEL}/`, ''),
  )
  return blob
    ? new Response(blob, { headers: { 'content-length': String(blob.size) } })
    : new Response(null, { status: 404 })
}

/**
 * Asks a model span by span. Many a folder says that its model times words, while the weights in it lack what that
 * takes: then its sentences' times are shared out.
 */
class Listener {
  constructor(
    private readonly model: AutomaticSpeechRecognitionPipeline,
    private timesWords: boolean,
    private readonly language: string | null,
  ) {}

  async hear(mono: Float32Array, span: SpeechStretch): Promise<HeardWord[]> {
    if (!this.timesWords) return this.ask(mono, span)
    try {
      return await this.ask(mono, span)
    } catch {
      this.timesWords = false
      return this.ask(mono, span)
    }
  }

  private async ask(mono: Float32Array, span: SpeechStretch): Promise<HeardWord[]> {
    const heard = await this.model(mono, {
      return_timestamps: this.timesWords ? 'word' : true,
      ...(this.language !== null && { language: this.language, task: 'transcribe' }),
    })
    const inSpan = (seconds: number) =>
      Math.min(span.toMicros, Math.max(span.fromMicros, span.fromMicros + toMicros(seconds)))
    const { chunks = [] } = Array.isArray(heard) ? { chunks: heard.flatMap((h) => h.chunks ?? []) } : heard
    return chunks.flatMap(({ text, timestamp: [from, to] }): HeardWord[] => {
      const fromMicros = inSpan(from)
      // A sentence that is cut off at the end of what was heard has no end.
      const endMicros = inSpan((to as number | null) ?? toSeconds(span.toMicros - span.fromMicros))
      if (this.timesWords) return [{ text, fromMicros, toMicros: endMicros }]
      return timedTokens({ text, words: [], fromMicros, toMicros: endMicros }).map((token, i, all) => ({
        text: text.slice(i === 0 ? 0 : all[i - 1]?.to, token.to),
        fromMicros: token.fromMicros,
        toMicros: token.toMicros,
      }))
    })
  }
}
