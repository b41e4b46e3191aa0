import { transfer, type Remote } from 'comlink'
import { SPEECH_STEP_MICROS, stepsInPart } from '@/core/detect/analysis'
import { concatenated } from '@/core/sound/concatenated'
import type { Micros } from '@/core/time/micros'
import { explain, nullOnError, quietly } from '@/diagnostics/note'
import { claimWhile, Turns } from '../ranks/turns'
import { openSource, type Source } from '../source/openSource'
import type { AnalyseJob, AnalyseOutcome, AnalyseWorker, FoundPart } from '../workers/analyse.protocol'
import type { SpeechWorker } from '../workers/speech.protocol'
import { sharedWorker } from '../workers/startWorker'
import { decodePart } from './decodePart'
import { measurePart, type MeasuredPart } from './measurePart'
import { PictureAnalyst } from './picturesPart'

/**
 * The speech model listens to this many parts at a time: the more, the less each costs. The first comes alone, so
 * that something is there soon.
 */
const PARTS_TOGETHER = 15

type OnPart = (part: FoundPart) => void

const speechWorker = sharedWorker<SpeechWorker>(
  () => new Worker(new URL('../workers/speech.worker.ts', import.meta.url), { type: 'module' }),
)

/** Looks and listens through a recording in the background: first all sound, which is quick, then the pictures. */
export class AnalyseService implements AnalyseWorker {
  private abort: AbortController | null = null
  private readonly turns = new Turns('analysis')

  async analyse(job: AnalyseJob, onPart: OnPart): Promise<AnalyseOutcome> {
    const abort = new AbortController()
    this.abort = abort
    const source = await openSource(job.file, job.originMicros).catch(nullOnError('the analysis of a recording'))
    if (!source) return { kind: 'failed', detail: 'the file cannot be opened' }
    try {
      // Sound alone is what somebody waits for; a whole recording is looked through while nothing else goes on.
      const turns = job.pictures.length === 0 ? null : this.turns
      const listen = () => this.listen(source, job, onPart, turns, abort.signal)
      await (turns ? listen() : claimWhile('findings', listen))
      const analyst = new PictureAnalyst(source, job.durationMicros, this.turns)
      for (const index of job.pictures)
        onPart({ kind: 'pictures', index, part: await analyst.part(index, abort.signal) })
      return { kind: 'done' }
    } catch (error) {
      if (abort.signal.aborted) return { kind: 'stopped' }
      return { kind: 'failed', detail: explain('the analysis of a recording', error) }
    } finally {
      source.dispose()
    }
  }

  stop(): void {
    this.abort?.abort()
  }

  /**
   * Decodes and measures here, while the model listens to the group before in a worker of its own: about the same
   * work for each.
   */
  private async listen(
    source: Source,
    { sound, durationMicros }: AnalyseJob,
    onPart: OnPart,
    turns: Turns | null,
    signal: AbortSignal,
  ): Promise<void> {
    if (!source.sound || sound.length === 0) return
    const speech = speechWorker()
    // A model that cannot be loaded is reported when it is first asked.
    speech.makeReady().catch(quietly('the analysis of a recording'))
    let before: Promise<void> = Promise.resolve()
    for (const group of groups(sound)) {
      const heard: MeasuredPart[] = []
      for (const index of group) {
        await turns?.next(signal)
        heard.push(measurePart(await decodePart(source, index, durationMicros, signal)))
      }
      await before
      signal.throwIfAborted()
      before = tellSpeech(speech, heard, durationMicros, onPart)
      // Awaited in the next round; until then a failure must not count as unheard of.
      before.catch(() => {})
    }
    await before
  }
}

async function tellSpeech(
  speech: Remote<SpeechWorker>,
  heard: readonly MeasuredPart[],
  durationMicros: Micros,
  onPart: OnPart,
): Promise<void> {
  const mono = concatenated(heard.map((h) => h.mono))
  const probabilities = await speech.probabilities(transfer(mono, [mono.buffer]))
  let at = 0
  for (const { index, measured } of heard) {
    const steps = stepsInPart(index, durationMicros, SPEECH_STEP_MICROS)
    const own = probabilities.subarray(at, at + steps)
    at += steps
    onPart({
      kind: 'sound',
      index,
      part: { ...measured, speech: Uint8Array.from({ length: steps }, (_, i) => Math.round((own[i] ?? 0) * 255)) },
    })
  }
}

/** Neighbouring parts together: the first alone, then up to {@link PARTS_TOGETHER}. */
function groups(indices: readonly number[]): number[][] {
  const all: number[][] = []
  for (const index of indices) {
    const last = all.at(-1)
    if (last && all.length > 1 && last.length < PARTS_TOGETHER && last.at(-1) === index - 1) last.push(index)
    else all.push([index])
  }
  return all
}
