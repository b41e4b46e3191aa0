import { levelOf, type Level } from '@/core/sound/levels'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { decoded, toPlanar } from '../sound/decoded'
import type { SoundSource } from '../source/openSource'

/** `count` steps of `stepMicros` (which may be fractions) each, from recording time `fromMicros` on. */
export interface LevelSpan {
  fromMicros: Micros
  stepMicros: number
  count: number
}

/** The levels of a span's steps; silence where the recording has no sound. */
export async function soundLevels(
  source: SoundSource,
  { fromMicros, stepMicros, count }: LevelSpan,
  signal: AbortSignal,
): Promise<Level[]> {
  const levels: Level[] = Array.from({ length: count }, () => ({ peak: 0, rms: 0 }))
  if (!source.sound) return levels
  const weights = new Float64Array(count)
  for await (const sample of decoded(
    source.sound,
    source.toContainer(fromMicros),
    source.toContainer(fromMicros + stepMicros * count),
  )) {
    if (signal.aborted) {
      sample.close()
      break
    }
    const channels = toPlanar(sample)
    const startMicros = source.toRecording(sample.timestamp) - fromMicros
    const framesPerStep = (stepMicros * sample.sampleRate) / MICROS_PER_SECOND
    const offset = (startMicros * sample.sampleRate) / MICROS_PER_SECOND
    sample.close()
    const length = channels[0]?.length ?? 0
    for (let at = 0; at < length;) {
      const step = Math.floor((offset + at) / framesPerStep + 1e-9)
      const end = Math.min(length, Math.max(at + 1, Math.ceil((step + 1) * framesPerStep - offset)))
      const level = levels[step]
      if (level) {
        const part = levelOf(channels, at, end)
        const weight = weights[step] ?? 0
        level.rms = Math.sqrt((level.rms ** 2 * weight + part.rms ** 2 * (end - at)) / (weight + end - at))
        level.peak = Math.max(level.peak, part.peak)
        weights[step] = weight + end - at
      }
      at = end
    }
  }
  return levels
}
