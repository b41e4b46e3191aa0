import type { Render } from '../model/render'
import { isOnPicture } from './renderSettings'

/** So many files are made in one go at most: each has an encoder and a canvas of its own. */
export const MAX_AT_ONCE = 4

/**
 * Whether two files can be made in one go: of the same edit as it was asked for at one time, frame by frame the same
 * moments, and heard alike.
 */
function goTogether(a: Render, b: Render): boolean {
  const [one, other] = [a.settings, b.settings]
  return (
    a.batchId !== null &&
    a.batchId === b.batchId &&
    a.highlightId === b.highlightId &&
    one.frameRate.num * other.frameRate.den === other.frameRate.num * one.frameRate.den &&
    isOnPicture(one.captions) === isOnPicture(other.captions) &&
    one.loudness === other.loudness
  )
}

/**
 * What is to be made next, of renders that wait, in the order of the queue: the first, and those that can be made
 * with it. Recordings are decoded once for all of them.
 */
export function nextGroup(waiting: readonly Render[]): Render[] {
  const [first] = waiting
  return first ? waiting.filter((r) => r === first || goTogether(first, r)).slice(0, MAX_AT_ONCE) : []
}
