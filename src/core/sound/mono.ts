import { decimate } from './decimate'

/** The mean of all channels. */
export function meanOf(channels: readonly Float32Array[]): Float32Array {
  const mono = new Float32Array(channels[0]?.length ?? 0)
  const share = 1 / Math.max(1, channels.length)
  for (const channel of channels)
    for (let i = 0; i < mono.length; i++) mono[i] = (mono[i] as number) + (channel[i] as number) * share
  return mono
}

/**
 * Sound at another sample rate. Where it has a lower one itself, each sample is held until the next: what that adds
 * lies above all that was recorded.
 */
export function atRate(mono: Float32Array, from: number, to: number): Float32Array {
  if (from >= to) return decimate(mono, from, to)
  return Float32Array.from(
    { length: Math.floor((mono.length * to) / from) },
    (_, i) => mono[Math.floor((i * from) / to)] ?? 0,
  )
}
