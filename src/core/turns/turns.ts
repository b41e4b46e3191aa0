import type { SpeechStretch } from '../sound/ducking'
import type { Micros } from '../time/micros'

/** A stretch of speech and who is heard in it, by their place among the people; null where that is not clear. */
export interface Spoken extends SpeechStretch {
  speaker: number | null
}

/** Somebody's turn, by their place among the people. */
export interface Turn {
  fromMicros: Micros
  toMicros: Micros
  speaker: number
}

/** Cuts come this much before somebody begins, where nobody speaks then. */
const BEFORE_MICROS: Micros = 200_000

/** Longer stretches are heard in pieces: two people may speak without a pause between. */
const PIECE_MICROS: Micros = 1_000_000

/** Stretches of speech in pieces of about a second, none much shorter. */
export function piecesOfSpeech(speech: readonly SpeechStretch[]): SpeechStretch[] {
  return speech.flatMap(({ fromMicros, toMicros }) => {
    const count = Math.max(1, Math.round((toMicros - fromMicros) / PIECE_MICROS))
    const at = (n: number) => Math.round(fromMicros + ((toMicros - fromMicros) * n) / count)
    return Array.from({ length: count }, (_, n) => ({ fromMicros: at(n), toMicros: at(n + 1) }))
  })
}

/**
 * Whose turn it is, from `inMicros` to `outMicros` without a gap: each turn goes on until somebody else begins, and
 * none is shorter than `leastMicros`, unless there is only one. Where it is not clear who speaks, whoever spoke before
 * goes on. A turn ends in the pause before the next, as late as may be; words are cut into only where two people
 * speak at once. Nothing where nobody is made out.
 */
export function turnsOf(
  spoken: readonly Spoken[],
  { inMicros, outMicros }: { inMicros: Micros; outMicros: Micros },
  leastMicros: Micros,
): Turn[] {
  const turns: (Turn & { endMicros: Micros })[] = []
  for (const { fromMicros, toMicros, speaker } of spoken) {
    if (toMicros <= inMicros || fromMicros >= outMicros) continue
    const last = turns.at(-1)
    if (last && (speaker === null || speaker === last.speaker)) last.endMicros = Math.max(last.endMicros, toMicros)
    else if (speaker !== null) {
      const from = last ? Math.max(last.endMicros, fromMicros - BEFORE_MICROS) : inMicros
      const start = last ? Math.min(from, Math.max(fromMicros, last.fromMicros + 1)) : inMicros
      if (last) last.toMicros = start
      turns.push({ fromMicros: start, toMicros: outMicros, speaker, endMicros: toMicros })
    }
  }
  return longEnough(turns, leastMicros).map(({ fromMicros, toMicros, speaker }) => ({ fromMicros, toMicros, speaker }))
}

const lengthOf = ({ fromMicros, toMicros }: Turn) => toMicros - fromMicros

/** The shortest turn goes to whoever speaks longer beside it, until all are long enough. */
function longEnough(turns: readonly Turn[], least: Micros): Turn[] {
  let left = joined(turns)
  while (left.length > 1) {
    const shortest = left.reduce((a, b) => (lengthOf(b) < lengthOf(a) ? b : a))
    if (lengthOf(shortest) >= least) break
    const at = left.indexOf(shortest)
    const [before, after] = [left[at - 1], left[at + 1]]
    const taker = !after || (before && lengthOf(before) >= lengthOf(after)) ? before : after
    if (!taker) break
    left = joined(left.map((t) => (t === shortest ? { ...t, speaker: taker.speaker } : t)))
  }
  return left
}

/** Turns of one person after another as one. */
function joined(turns: readonly Turn[]): Turn[] {
  const all: Turn[] = []
  for (const turn of turns) {
    const last = all.at(-1)
    if (last && last.speaker === turn.speaker) all[all.length - 1] = { ...last, toMicros: turn.toMicros }
    else all.push(turn)
  }
  return all
}
