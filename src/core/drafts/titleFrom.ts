import type { ProposedMoment } from '../detect/moments'
import type { Cue } from '../model/words'
import { MICROS_PER_SECOND, type Micros } from '../time/micros'

/** A title has so many words, and characters, at most. */
const MOST_WORDS = 8
const MOST_CHARACTERS = 48

/** Somebody says what happens this soon before or after it. */
const NEAR_MICROS: Micros = 4 * MICROS_PER_SECOND

/**
 * A title from what is said when it is liveliest: the nearest line to the peak, cut after a phrase where it is long.
 * Null where nothing is said there.
 */
export function titleFrom(
  cues: readonly Pick<Cue, 'fromMicros' | 'toMicros' | 'text'>[],
  { peakMicros, inMicros, outMicros }: Pick<ProposedMoment, 'peakMicros' | 'inMicros' | 'outMicros'>,
): string | null {
  const far = ({ fromMicros, toMicros }: { fromMicros: Micros; toMicros: Micros }) =>
    Math.max(0, fromMicros - peakMicros, peakMicros - toMicros)
  const [nearest] = cues
    .filter((c) => c.text.trim() !== '' && c.toMicros > inMicros && c.fromMicros < outMicros && far(c) <= NEAR_MICROS)
    .toSorted((a, b) => far(a) - far(b))
  if (!nearest) return null
  const text = nearest.text.replace(/\s+/g, ' ').trim()
  const [phrase = text] = /^.{12,}?[.!?…;:,](?=\s|$)/u.exec(text) ?? []
  const words = (phrase.length <= MOST_CHARACTERS ? phrase : text).split(' ')
  let title = ''
  for (const word of words.slice(0, MOST_WORDS)) {
    if (title && title.length + 1 + word.length > MOST_CHARACTERS) break
    title = title ? `${title} ${word}` : word
  }
  const bare = title.replace(/[\s,;:.…–—-]+$/u, '')
  return bare === '' ? null : bare.charAt(0).toLocaleUpperCase() + bare.slice(1)
}
