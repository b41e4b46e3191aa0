/** −3 dB: how centre and surround channels enter a stereo pair (ITU-R BS.775-3, table 2). */
const MINUS_3_DB = Math.SQRT1_2

/**
 * Planar channels to interleaved stereo, from frame `start` for `count` frames. One channel goes to both sides; two
 * stay; with six (L R C LFE Ls Rs) centre and surrounds join at −3 dB and the LFE is left out; of other counts the
 * first two are taken.
 */
export function toInterleavedStereo(channels: readonly Float32Array[], start: number, count: number): Float32Array {
  const out = new Float32Array(count * 2)
  const [left, second, centre, , leftSurround, rightSurround] = channels
  const right = second ?? left
  if (!left || !right) return out
  const surround = channels.length === 6
  for (let i = 0; i < count; i++) {
    const at = start + i
    let l = left[at] ?? 0
    let r = right[at] ?? 0
    if (surround) {
      const c = MINUS_3_DB * (centre?.[at] ?? 0)
      l += c + MINUS_3_DB * (leftSurround?.[at] ?? 0)
      r += c + MINUS_3_DB * (rightSurround?.[at] ?? 0)
    }
    out[i * 2] = l
    out[i * 2 + 1] = r
  }
  return out
}
