import type { Micros } from '../time/micros'

/** What to do with a block of decoded sound so that everything lies where its own timestamp says. */
export interface Splice {
  /** Frames of silence to write first: the recording has none there. */
  silence: number
  /** Frames of the block to leave out at its start: already written, or before the range. */
  skip: number
  /** Frames of the block to write after that. */
  take: number
}

/** Timestamps this close to the running end are taken as following on: containers round theirs, codecs do not. */
const FOLLOWS_ON_SECONDS = 0.004

/**
 * Places a block of `frames` frames that starts at `blockMicros` into the range [fromMicros, fromMicros + total
 * frames). `written` frames are there already. All in frames of `sampleRate`; never returns a negative number.
 */
export function splice(
  blockMicros: Micros,
  frames: number,
  range: { fromMicros: Micros; total: number },
  written: number,
  sampleRate: number,
): Splice {
  const start = Math.round(((blockMicros - range.fromMicros) * sampleRate) / 1_000_000)
  const near = Math.abs(start - written) <= FOLLOWS_ON_SECONDS * sampleRate && start >= 0
  const at = near ? written : start
  const skip = Math.min(frames, Math.max(0, written - at))
  const silence = Math.max(0, Math.min(range.total, at) - written)
  const take = Math.max(0, Math.min(frames - skip, range.total - written - silence))
  return { silence, skip, take }
}
