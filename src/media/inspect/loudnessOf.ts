import { recordingOf, type Edit } from '@/core/model/edit'
import type { SpeechOf } from '@/core/sound/ducking'
import { LoudnessMeter, type Loudness } from '@/core/sound/loudness'
import { soundPlan } from '@/core/sound/soundPlan'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { timeMapOf } from '@/core/time/timeMap'
import { quietly } from '@/diagnostics/note'
import { Mixer, originOf, SoundSources } from '../sound/mixer'
import { soundArithmetic } from '../sound/soundKernel'
import { OUTPUT_SAMPLE_RATE } from '../sound/stereo'
import { openSound, type SoundSource } from '../source/openSource'
import type { OpenSources, SourceFile } from '../source/openSources'
import type { SoundMemory } from './soundMemory'

/**
 * Sound that is kept is listened to without ever waiting for anything: so often somebody else is let in, among them a
 * later call that ends this one.
 */
const MAX_AT_A_TIME_MS = 50

/**
 * Listens to a highlight's mix, as it is played and rendered; null when `signal` is aborted. Rejects when a file
 * cannot be read. Recordings that are open for something else are not opened again.
 */
export async function loudnessOf(
  edit: Edit,
  files: ReadonlyMap<string, Blob>,
  speechOf: SpeechOf,
  open: OpenSources,
  memory: SoundMemory,
  signal: AbortSignal,
): Promise<Loudness | null> {
  const sources = borrowed(edit, files, open)
  const over = new AbortController()
  try {
    // Nobody waits for this: what cannot be read is met again by whoever mixes.
    void readLaterHalves(edit, sources, memory, AbortSignal.any([signal, over.signal])).catch(quietly('loudness'))
    const meter = new LoudnessMeter(OUTPUT_SAMPLE_RATE, await soundArithmetic())
    let since = performance.now()
    for await (const block of new Mixer(edit, speechOf, sources, memory.read).blocks(0)) {
      if (performance.now() - since > MAX_AT_A_TIME_MS) {
        await new Promise((resolve) => setTimeout(resolve))
        since = performance.now()
      }
      if (signal.aborted) return null
      meter.push(block)
    }
    return meter.loudness()
  } finally {
    over.abort()
    sources.close()
  }
}

/** What is shorter is read in one go. */
const WORTH_HALVING_MICROS = 10 * MICROS_PER_SECOND

/**
 * Reads the later half of everything long that is heard while its first half is read and mixed: a decoder takes
 * packets one by one, and two of them keep two cores busy.
 */
async function readLaterHalves(
  edit: Edit,
  sources: SoundSources,
  memory: SoundMemory,
  signal: AbortSignal,
): Promise<void> {
  for (const segment of soundPlan(edit, timeMapOf(edit.highlight))) {
    const {
      source: { id },
      fromMicros,
      startMicros,
      endMicros,
      speedPercent,
    } = segment
    const lengthMicros = ((endMicros - startMicros) * speedPercent) / 100
    if (lengthMicros < WORTH_HALVING_MICROS || signal.aborted) continue
    await memory.readAhead(
      id,
      await sources.get(id, originOf(edit, segment.source)),
      fromMicros + lengthMicros / 2,
      fromMicros + lengthMicros,
      signal,
      true,
    )
  }
}

/** Cut points are moved by this much at a time, mostly. */
const AROUND_MICROS = 30 * MICROS_PER_SECOND

/**
 * Hears what lies around the passages of a highlight, so that it need not be decoded when a cut point is moved out
 * there.
 */
export async function hearAround(
  edit: Edit,
  files: ReadonlyMap<string, Blob>,
  open: OpenSources,
  memory: SoundMemory,
  signal: AbortSignal,
): Promise<void> {
  const sources = borrowed(edit, files, open)
  try {
    for (const { recordingId, inMicros, outMicros } of edit.highlight.passages) {
      if (signal.aborted) return
      const source = await sources.get(recordingId, recordingOf(edit, recordingId).originMicros)
      await memory.readAhead(recordingId, source, inMicros - AROUND_MICROS, outMicros + AROUND_MICROS, signal)
    }
  } finally {
    sources.close()
  }
}

/** The files of an edit; its recordings are those that are open already, and stay so until these are closed. */
function borrowed(edit: Edit, files: ReadonlyMap<string, Blob>, open: OpenSources): SoundSources {
  return new SoundSources(files, (file, originMicros, id) =>
    edit.recordings.some((r) => r.id === id) ? borrow(open, { id, file, originMicros }) : openSound(file, originMicros),
  )
}

/** A recording that stays open until it is given back. */
function borrow(open: OpenSources, file: SourceFile): Promise<SoundSource> {
  return new Promise((resolve, reject) => {
    void open
      .use(file, (source) => new Promise<void>((giveBack) => resolve({ ...source, dispose: giveBack })))
      .catch(reject)
  })
}
