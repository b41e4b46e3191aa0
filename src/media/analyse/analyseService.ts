import { openSource } from '../source/openSource'
import type { AnalyseJob, AnalyseOutcome, AnalyseWorker, FoundPart } from '../workers/analyse.protocol'
import { PictureAnalyst } from './picturesPart'
import { soundPart } from './soundPart'
import { SpeechDetector } from './speechDetector'

/** Looks and listens through a recording in the background: first all sound, which is quick, then the pictures. */
export class AnalyseService implements AnalyseWorker {
  private abort: AbortController | null = null
  private detector: Promise<SpeechDetector> | null = null

  async analyse({ file, originMicros, durationMicros, sound, pictures }: AnalyseJob, onPart: (part: FoundPart) => void): Promise<AnalyseOutcome> {
    const abort = new AbortController()
    this.abort = abort
    const { signal } = abort
    const source = await openSource(file, originMicros).catch(() => null)
    if (!source) return { kind: 'failed', detail: 'the file cannot be opened' }
    try {
      if (source.sound && sound.length > 0) {
        const detector = await (this.detector ??= SpeechDetector.load())
        for (const index of sound) onPart({ kind: 'sound', index, part: await soundPart(source, detector, index, durationMicros, signal) })
      }
      const analyst = new PictureAnalyst(source, durationMicros)
      for (const index of pictures) onPart({ kind: 'pictures', index, part: await analyst.part(index, signal) })
      return { kind: 'done' }
    } catch (error) {
      if (signal.aborted) return { kind: 'stopped' }
      return { kind: 'failed', detail: error instanceof Error ? error.message : String(error) }
    } finally {
      source.dispose()
    }
  }

  stop(): void {
    this.abort?.abort()
  }
}
