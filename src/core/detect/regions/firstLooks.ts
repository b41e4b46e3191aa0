/** Of so many moments running at least one is looked at first. */
const SPACING = 5

/**
 * Which of moments close together are looked at first, so that little has to be decoded for them: `keys` tell for each
 * the key frame that it is decoded from. The first and the last are among them, the first after each key frame where
 * that is near enough, and of the others as few, as soon after their key frames, as will do.
 */
export function firstLooks(keys: readonly number[]): number[] {
  const last = keys.length - 1
  const looks = last < 0 ? [] : [0]
  for (let at = 0; at < last; looks.push(at)) {
    const newer = keys.findIndex((key, i) => i > at && key !== keys[at])
    const next = newer < 0 ? last : newer
    if (next <= at + SPACING) at = next
    else at = Math.min(at + SPACING, Math.max(at + 1, next - SPACING))
  }
  return looks
}
