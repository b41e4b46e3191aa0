import { Limiter } from '@/core/sound/limiter'
import { fromDecibels } from '@/core/sound/levels'
import { LoudnessMeter } from '@/core/sound/loudness'
import { soundArithmetic } from './soundKernel'
import { OUTPUT_SAMPLE_RATE } from './stereo'

/** Peaks are held under this, dBTP, where a loudness is asked for. */
const CEILING_DB = -1

/** Quieter than this is silence: nothing to bring up. */
const SILENCE_LUFS = -69

/**
 * Sound brought to an integrated loudness (LUFS), its peaks held. `mixed` is heard twice: once to be measured. Throws
 * when `signal` is aborted meanwhile.
 */
export async function* atLoudness(
  mixed: () => AsyncGenerator<Float32Array>,
  lufs: number,
  signal: AbortSignal,
): AsyncGenerator<Float32Array> {
  const arithmetic = await soundArithmetic()
  const meter = new LoudnessMeter(OUTPUT_SAMPLE_RATE, arithmetic)
  for await (const block of mixed()) {
    signal.throwIfAborted()
    meter.push(block)
  }
  const measured = meter.loudness().lufs
  const gain = measured < SILENCE_LUFS ? 1 : fromDecibels(lufs - measured)
  const limiter = new Limiter(OUTPUT_SAMPLE_RATE, CEILING_DB, arithmetic)
  for await (const block of mixed()) yield limiter.push(block.map((sample) => sample * gain))
  yield limiter.end()
}
