/** Loudest and mean level of one stretch of sound, both linear, 0..1 for full scale. */
export interface Level {
  peak: number
  rms: number
}

/** Level of planar samples over all channels, from frame `start` up to, not including, `end`. */
export function levelOf(channels: readonly Float32Array[], start: number, end: number): Level {
  let peak = 0
  let sum = 0
  for (const channel of channels) {
    for (let i = start; i < end; i++) {
      const v = channel[i] ?? 0
      sum += v * v
      peak = Math.max(peak, Math.abs(v))
    }
  }
  const count = Math.max(1, (end - start) * channels.length)
  return { peak, rms: Math.sqrt(sum / count) }
}

/** Linear level to dBFS; silence is −120. */
export function toDecibels(linear: number): number {
  return linear <= 1e-6 ? -120 : 20 * Math.log10(linear)
}

/** Decibels to a linear factor; −60 and below is silence. */
export function fromDecibels(db: number): number {
  return db <= -60 ? 0 : 10 ** (db / 20)
}
