import type { Edit } from '@/core/model/edit'
import type { SpeechOf } from '@/core/sound/ducking'
import { LoudnessMeter, type Loudness } from '@/core/sound/loudness'
import { Mixer, SoundSources } from '../sound/mixer'
import { soundArithmetic } from '../sound/soundKernel'
import { OUTPUT_SAMPLE_RATE } from '../sound/stereo'
import { openSound, type SoundSource } from '../source/openSource'
import type { OpenSources } from '../source/openSources'
import type { SoundMemory } from './soundMemory'

/** Listens to a highlight's mix, as it is played and rendered; null when `signal` is aborted. Rejects when a file cannot be read. Recordings that are open for something else are not opened again. */
export async function loudnessOf(edit: Edit, files: ReadonlyMap<string, Blob>, speechOf: SpeechOf, open: OpenSources, memory: SoundMemory, signal: AbortSignal): Promise<Loudness | null> {
  let letGo = () => {}
  const held = new Promise<void>((resolve) => (letGo = resolve))
  /** A recording that stays open until the listening is over. */
  const borrow = (id: string, file: Blob, originMicros: number) => new Promise<SoundSource>((resolve, reject) => void open.use({ id, file, originMicros }, (source) => (resolve({ ...source, dispose: () => {} }), held)).catch(reject))
  const sources = new SoundSources(files, (file, originMicros, id) => (edit.recordings.some((r) => r.id === id) ? borrow(id, file, originMicros) : openSound(file, originMicros)))
  try {
    const meter = new LoudnessMeter(OUTPUT_SAMPLE_RATE, await soundArithmetic())
    for await (const block of new Mixer(edit, speechOf, sources, memory.read).blocks(0)) {
      if (signal.aborted) return null
      meter.push(block)
    }
    return meter.loudness()
  } finally {
    sources.close()
    letGo()
  }
}
