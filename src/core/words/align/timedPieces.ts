import type { Micros } from '../../time/micros'
import type { SpokenWord } from '../../model/words'
import type { LinedUp } from '../lineUpText'
import type { AlignedWord } from './alignWords'
import { saidTokens } from './saidTokens'

/** A piece of text with its time, and those of its words that are known. */
export interface TimedPiece extends LinedUp {
  words: SpokenWord[]
}

/** Nobody can read what is there for less; where the next piece leaves room it stays so long. */
const MIN_SHOWN_MICROS = 800_000

/** All words that are said for pieces of text, in order: what a decoder is asked for. */
export const saidWords = (pieces: readonly Pick<LinedUp, 'text'>[]): string[] =>
  pieces.flatMap(({ text }) => saidTokens(text).flatMap((t) => t.said))

/**
 * Pieces with the times of their words: `aligned` has one entry for each of {@link saidWords}. A piece of which no
 * word was made out keeps the time it has, as far as its neighbours leave room.
 */
export function timedPieces(pieces: readonly LinedUp[], aligned: readonly (AlignedWord | null)[]): TimedPiece[] {
  let at = 0
  const timed = pieces.map((piece): TimedPiece => {
    const words = saidTokens(piece.text).flatMap(({ from, to, said }): SpokenWord[] => {
      const heard = aligned.slice(at, at + said.length).filter((w) => w !== null)
      at += said.length
      const [first, last] = [heard[0], heard.at(-1)]
      if (!first || !last) return []
      return [{ text: piece.text.slice(from, to).slice(0, 200), fromMicros: first.fromMicros, toMicros: last.toMicros }]
    })
    const [first, last] = [words[0], words.at(-1)]
    if (!first || !last) return { ...piece, words }
    return { ...piece, words, fromMicros: first.fromMicros, toMicros: last.toMicros }
  })
  return apart(timed)
}

/** Each piece after the one before, long enough to be read where there is room. */
function apart(timed: readonly TimedPiece[]): TimedPiece[] {
  let end: Micros = 0
  return timed.map((piece, i) => {
    const next = timed.slice(i + 1).find((p) => p.words.length > 0)?.fromMicros ?? Infinity
    const fromMicros = Math.max(end, Math.min(piece.fromMicros, next - 1))
    const wanted = Math.max(piece.toMicros, fromMicros + MIN_SHOWN_MICROS)
    const toMicros = Math.max(fromMicros + 1, Math.min(wanted, next))
    end = toMicros
    return { ...piece, fromMicros, toMicros }
  })
}
